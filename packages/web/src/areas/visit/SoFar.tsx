import { Box, Button, Stack, Typography } from '@mui/material';
import { checkByCode } from '@entretien/core/checks';
import { summaryOf } from '@entretien/core/visit';
import { Figure } from '../../parts/Figure.js';
import { VerdictMark } from '../../parts/VerdictMark.js';
import { whenWords } from './MeasureCard.js';
import type { Phase } from './phases.js';
import type { UnitAtWork } from './use-visit.js';

/** Beside the steps, where there is room: what the visit has come to so far. */
export function SoFar({
  atWork,
  onGo,
}: {
  readonly atWork: UnitAtWork;
  readonly onGo: (phase: Phase) => void;
}) {
  const { progress, unit, visit } = atWork;
  const answered = progress.tasks.filter(({ outcome }) => outcome !== 'open').length;
  return (
    <Box component="section" aria-label="So far" sx={{ px: 2.75, py: 2 }}>
      <Typography variant="h2">So far</Typography>
      <Typography sx={{ color: 'text.secondary', mb: 1 }}>
        <Figure value={`${answered} of ${progress.tasks.length}`} /> tasks answered
      </Typography>
      {answered > 0 &&
        summaryOf(unit, progress).map(({ sentence }, index) => (
          <Typography key={index} variant="body2" sx={{ py: 0.3 }}>
            {sentence}
          </Typography>
        ))}
      {progress.measured.length > 0 && (
        <Box sx={{ mt: 1.5 }}>
          <Typography variant="h3">Measured</Typography>
          {progress.measured.map(({ id, check, phase, verdict, reason }) => (
            <Box key={id} sx={{ borderTop: 1, borderColor: 'divider', py: 0.6 }}>
              <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'center', gap: 1 }}>
                <Typography variant="body2" sx={{ fontWeight: 650 }}>
                  {checkByCode(check)?.name ?? check}, {whenWords[phase]}
                </Typography>
                {verdict && <VerdictMark verdict={verdict} />}
              </Stack>
              <Typography variant="body2" sx={{ color: 'text.secondary' }}>
                {reason}
              </Typography>
            </Box>
          ))}
        </Box>
      )}
      {progress.photos.length > 0 && (
        <Stack direction="row" sx={{ flexWrap: 'wrap', gap: 1, mt: 1.5 }}>
          {progress.photos
            .filter(({ id }) => atWork.steps.some((step) => step.id === id && step.marks !== undefined))
            .map(({ photo, caption }) => (
              <Box
                key={photo}
                component="img"
                src={`/api/visits/${visit.id}/photos/${photo}`}
                alt={caption ?? 'Photo of the visit'}
                sx={{ width: 88, height: 66, objectFit: 'cover', borderRadius: 0.5 }}
              />
            ))}
        </Stack>
      )}
      {progress.obstacles.length === 0 && !progress.signed && (
        <Button onClick={() => onGo('sign')} sx={{ mt: 1.5, px: 0 }}>
          Ready to be signed for
        </Button>
      )}
    </Box>
  );
}
