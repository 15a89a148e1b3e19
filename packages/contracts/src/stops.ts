import { stopGrounds, stopLimits, stopScopes, type StopGround, type StopScope } from '@entretien/core/stop';
import { IsIn } from 'class-validator';
import { IsId, IsInstant, IsText, Optional, textLimits } from './rules.js';

/** A unit, or a part of its use, is taken out of service. */
export class TakeOutOfService {
  @IsId() id: string;
  @IsInstant() since: string;
  @IsIn(stopScopes, { message: `What is taken out is one of ${stopScopes.join(', ')}.` }) scope: StopScope;
  /** Which point of use, which side of a panel. */
  @Optional() @IsText('The place', stopLimits.place) place?: string;
  @IsIn(stopGrounds, { message: `The ground is one of ${stopGrounds.join(', ')}.` }) ground: StopGround;
  @IsText('Why', stopLimits.why) why: string;
  /** The repair that was opened for it. */
  @Optional() @IsId() finding?: string;
  @Optional() @IsText('What must be shown', stopLimits.shown) toShow?: string;
  /** Who was told, and what hangs on it. */
  @Optional() @IsText('Who was told', stopLimits.informed) informed?: string;
  @Optional() @IsText('The note', textLimits.note) note?: string;
  @Optional() @IsId() by?: string;
}

/** It comes back: by a later better verdict, or by somebody's decision. */
export class ReturnToService {
  @IsId() id: string;
  @IsInstant() at: string;
  /** Id of the fact that had taken it out: that fact, or a measurement. */
  @IsId() ends: string;
  /** Id of the measurement, or of the examination of a vessel, that shows it. */
  @Optional() @IsId() shownBy?: string;
  @Optional() @IsText('Who decides', stopLimits.informed) decidedBy?: string;
  @Optional() @IsText('The reason', stopLimits.reason) reason?: string;
  @Optional() @IsText('The note', textLimits.note) note?: string;
  @Optional() @IsId() by?: string;
}
