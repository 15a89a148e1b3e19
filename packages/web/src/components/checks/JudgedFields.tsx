import { Typography } from '@mui/material';
import { cautionOf, howOf, type CheckDefinition } from '@entretien/core/checks';
import type { DataPlate } from '@entretien/core/machine';
import { Caution } from '../Caution.js';
import { KnownForCheck } from '../KnownFigures.js';
import type { CheckTexts } from './check-entries.js';
import { CheckFields } from './CheckFields.js';
import { JudgementBand } from './JudgementBand.js';
import type { JudgedTexts } from './use-judged.js';

interface JudgedFieldsProps {
  readonly check: CheckDefinition;
  readonly judged: JudgedTexts;
  readonly texts: CheckTexts;
  readonly onTexts: (texts: CheckTexts) => void;
  readonly plate?: DataPlate | undefined;
}

/** How a check is done, its hazard, its fields, and the judgement of what is typed. */
export function JudgedFields({ check, judged, texts, onTexts, plate }: JudgedFieldsProps) {
  const caution = cautionOf(check, plate);
  return (
    <>
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        {howOf(check, plate)}
      </Typography>
      {plate && <KnownForCheck check={check.code} plate={plate} />}
      {caution && <Caution text={caution} />}
      <CheckFields
        fields={judged.fields}
        texts={texts}
        onText={(code, text) => onTexts({ ...texts, [code]: text })}
        problems={judged.problems}
        asks={judged.asks}
        plate={plate}
      />
      {judged.judgement ? (
        <JudgementBand judgement={judged.judgement} />
      ) : (
        <Typography role="status" sx={{ color: 'text.secondary', minHeight: 24 }}>
          {judged.missing ?? ''}
        </Typography>
      )}
    </>
  );
}
