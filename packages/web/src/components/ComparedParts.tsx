import { Box, Stack, Typography } from '@mui/material';
import type { ComparedFigure, Substitution } from '@entretien/core/parts';

const verdictText: Readonly<Record<Substitution['verdict'], string>> = {
  fits: 'It fits',
  unsure: 'Not sure: something is not known',
  'does-not-fit': 'Does not fit',
  reason: 'Only with a reason from the lead',
};

const verdictColour: Readonly<Record<Substitution['verdict'], string>> = {
  fits: 'slate',
  unsure: 'brass',
  'does-not-fit': 'oxide',
  reason: 'brass',
};

const holdsText: Readonly<Record<ComparedFigure['holds'], string>> = {
  yes: 'holds',
  no: 'too low',
  unknown: 'not known',
};

/** Whether a part may take the place of another, figure by figure. */
export function ComparedParts({ judged }: { readonly judged: Substitution }) {
  return (
    <Box role="status">
      <Typography sx={{ fontWeight: 700, color: verdictColour[judged.verdict] }}>
        {verdictText[judged.verdict]}
      </Typography>
      <Typography variant="body2">{judged.sentence}</Typography>
      {judged.figures.map(({ figure, holds, sentence }) => (
        <Stack key={figure} direction="row" sx={{ borderTop: 1, borderColor: 'divider', py: 0.5, gap: 1.5 }}>
          <Typography variant="body2" sx={{ flex: 1 }}>
            {sentence}
          </Typography>
          <Typography
            variant="body2"
            sx={{ fontWeight: 650, color: holds === 'no' ? 'oxide' : 'text.secondary' }}
          >
            {holdsText[holds]}
          </Typography>
        </Stack>
      ))}
    </Box>
  );
}
