import { IsId, IsText, Optional, textLimits } from './rules.js';

/** Who is meant while nobody has said a name: the person every installation starts with. */
export const DEFAULT_PERSON_ID = '00000000-0000-4000-8000-000000000001';

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
