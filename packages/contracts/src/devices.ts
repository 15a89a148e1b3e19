import { isHostAddress, LONGEST_REGISTERS } from '@entretien/core/gateway';
import { IsBoolean, ValidateBy } from 'class-validator';
import { IsId, IsText, IsWhole, Optional, textLimits } from './rules.js';

/** Seconds from one question to the next. */
export const pollLimits = { least: 1, most: 3600 } as const;
/** Most devices of one unit. */
export const MOST_DEVICES_OF_UNIT = 4;

function IsHostAddress(): PropertyDecorator {
  const message = 'The address is written by numbers, like 192.0.2.7.';
  return ValidateBy({
    name: 'isHostAddress',
    validator: {
      validate: (text: unknown) => typeof text === 'string' && isHostAddress(text),
      defaultMessage: () => message,
    },
  });
}

/** A controller or meter that is asked for what it shows; sent again with the same id it is changed. */
export class SaveDevice {
  @IsId() id: string;
  @IsText('The name', textLimits.short) name: string;
  @IsHostAddress() host: string;
  @IsWhole('The port is a whole number from 1 to 65,535.', 1, 65_535) port: number;
  /** Its number on the bus behind the address; 1 where it is alone (255 for some). */
  @IsWhole('The unit number is a whole number from 0 to 255.', 0, 255) unitNumber: number;
  @IsWhole(
    `It is asked every ${pollLimits.least} to ${pollLimits.most} seconds.`,
    pollLimits.least,
    pollLimits.most,
  )
  everySeconds: number;
  /** Where its figures stand: a table as a list of values. */
  @IsText('The table of registers', LONGEST_REGISTERS) registers: string;
  @IsBoolean({ message: 'Say whether it is asked.' }) isOn: boolean;
  @Optional() @IsId() by?: string;
}

/** Off, not among the allowed addresses, asked and not answered yet, answering, or no longer answering. */
export type DeviceState = 'off' | 'not-allowed' | 'waiting' | 'answers' | 'silent';

/** Something that a device told and that did not become a fact. */
export interface DeviceRefusalView {
  readonly id: string;
  readonly what: string;
  readonly sentence: string;
  readonly firstAt: string;
  readonly lastAt: string;
  readonly times: number;
}

export interface DeviceView {
  readonly id: string;
  readonly compressorId: string;
  readonly tag: string;
  readonly siteName: string;
  readonly timeZone: string;
  readonly name: string;
  readonly host: string;
  readonly port: number;
  readonly unitNumber: number;
  readonly everySeconds: number;
  readonly registers: string;
  readonly isOn: boolean;
  readonly state: DeviceState;
  readonly answeredAt: string | null;
  /** Why it does not answer, or is not asked; null where all is well. */
  readonly problem: string | null;
  /** What it showed last. */
  readonly figures: readonly { readonly name: string; readonly text: string }[];
  /** What was refused and not seen to, the latest first. */
  readonly refused: readonly DeviceRefusalView[];
}

export interface DevicesView {
  /** Whether this installation asks devices at all. */
  readonly isOn: boolean;
  readonly items: readonly DeviceView[];
}
