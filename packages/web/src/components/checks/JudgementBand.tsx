import { Box, Typography } from '@mui/material';
import type { Judgement, LimitOrigin } from '@entretien/core/checks';
import { VerdictBand } from '../VerdictMark.js';

const originText: Record<LimitOrigin, string> = {
  book: 'by the manual',
  label: 'by its label',
  plate: 'by the data plate',
  standard: 'by the standard',
  baseline: 'by its own baseline',
  practice: 'common practice',
};

/** The judgement of what is typed: verdict, reason, limit, and what to do next. */
export function JudgementBand({ judgement }: { readonly judgement: Judgement }) {
  const { verdict, noComparison, reason, limit, suggests } = judgement;
  return (
    <VerdictBand verdict={verdict} noComparison={noComparison}>
      <Typography sx={{ fontWeight: 600, lineHeight: 1.35 }}>{reason}</Typography>
      {limit && (
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          Limit: {limit.text}, {originText[limit.origin]}
        </Typography>
      )}
      {suggests.length > 0 && (
        <Box component="ul" sx={{ m: 0, mt: 0.5, pl: 2.25, typography: 'body2' }}>
          {suggests.map(({ text }) => (
            <li key={text}>{text}</li>
          ))}
        </Box>
      )}
    </VerdictBand>
  );
}
