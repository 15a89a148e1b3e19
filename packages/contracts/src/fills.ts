import { connectorBars, fillLooks, type FillLook } from '@entretien/core/filling';
import { MOST_GAUGE_BAR } from '@entretien/core/isolation';
import { ArrayMaxSize, IsArray, IsIn } from 'class-validator';
import { all, IsFigure, IsId, IsInstant, IsLocalDate, IsText, Optional, textLimits } from './rules.js';

const IsBar = (what: string) => IsFigure(what, 0, MOST_GAUGE_BAR);

function AreLooks(): PropertyDecorator {
  return all(
    IsArray({ message: 'What was looked at is a list.' }),
    ArrayMaxSize(10, { message: 'What was looked at is a short list.' }),
    IsIn(fillLooks, { each: true, message: `What was looked at is of ${fillLooks.join(', ')}.` }),
  );
}

/** A cylinder that was filled from a set. */
export class RecordFill {
  @IsId() id: string;
  @IsId() vesselId: string;
  @IsInstant() startedAt: string;
  @IsInstant() endedAt: string;
  /** What stood in it. */
  @IsBar('The pressure before') fromBar: number;
  /** What it showed when the fill ended. */
  @IsBar('The pressure at the end') toBar: number;
  /** What the connector is marked with. */
  @IsIn(connectorBars, { message: `The connector is marked ${connectorBars.join(' or ')} bar.` })
  connectorBar: number;
  /** What was looked at before air flowed: all of it. */
  @AreLooks() looked: FillLook[];
  @IsIn(['full', 'stopped'], { message: 'It ended full or stopped.' }) outcome: 'full' | 'stopped';
  /** Of the place; 20 °C where nobody knows. */
  @Optional() @IsFigure('The temperature of the place', -30, 50) ambientC?: number;
  /** Of the cylinder’s wall when it ended. */
  @Optional() @IsFigure('The temperature of the wall', -30, 150) wallC?: number;
  /** What the CO monitor showed before air flowed, where somebody breathes it. */
  @Optional() @IsFigure('What the CO monitor shows', 0, 1000) coPpm?: number;
  @Optional() @IsText('The note', textLimits.note) note?: string;
  @Optional() @IsId() by?: string;
}

/** Which fills of a log. */
export class FillLogQuery {
  @Optional() @IsLocalDate() from?: string;
  @Optional() @IsLocalDate() to?: string;
}
