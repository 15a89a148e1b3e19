import { IsId, IsText, Optional, textLimits } from './rules.js';

/** Somebody who works on compressors. */
export class AddPerson {
  @IsId() id: string;
  @IsText('The name', textLimits.name) name: string;
  @Optional() @IsText('The initials', 4) initials?: string;
}

export class PersonView {
  @IsId() id: string;
  @IsText('The name', textLimits.name) name: string;
  @IsText('The initials', 4) initials: string;
}
