import { Box, Button, Link as MuiLink, Stack, Typography } from '@mui/material';
import { checkByCode } from '@entretien/core/checks';
import type { VerificationState } from '@entretien/core/visit';
import { Link } from 'react-router';
import { useRepairs } from '../../data/queries.js';
import { Figure } from '../../components/Figure.js';
import { Tick } from '../../components/Tick.js';
import { VerdictMark } from '../../components/VerdictMark.js';
import { whenText } from './MeasureCard.js';
import type { Phase } from './phases.js';
import { VisitPhotos } from './VisitPhotos.js';
import type { CompressorAtWork } from './use-visit.js';

const verificationText: Readonly<Record<VerificationState, string>> = {
  'none-needed': 'done',
  missing: 'not proved yet',
  failed: 'proof failed',
  passed: 'proved',
  closed: 'closed',
};

const verificationColour: Readonly<Record<VerificationState, string>> = {
  'none-needed': 'slate',
  missing: 'brass',
  failed: 'oxide',
  passed: 'slate',
  closed: 'brass',
};

interface SoFarProps {
  readonly atWork: CompressorAtWork;
  readonly phase: Phase;
  readonly onGo: (phase: Phase) => void;
}

/** Beside the steps, where there is room: what the visit has come to so far. */
export function VisitSummary({ atWork, phase, onGo }: SoFarProps) {
  const { progress } = atWork;
  const { data: repairs } = useRepairs(atWork.view.compressorId);
  const open = (repairs ?? []).filter(({ isOpen }) => isOpen);
  const answered = progress.tasks.filter(({ outcome }) => outcome !== 'open').length;
  return (
    <Box component="section" aria-label="So far" sx={{ px: 2.75, py: 2 }}>
      <Typography variant="h2">So far</Typography>
      <Typography sx={{ color: 'text.secondary', mb: 1 }}>
        {progress.tasks.length === 0 ? (
          'No task yet.'
        ) : (
          <>
            <Figure value={`${answered} of ${progress.tasks.length}`} /> tasks answered
          </>
        )}
      </Typography>
      {progress.tasks.map(({ code, outcome, verification }) => (
        <Stack key={code} direction="row" sx={{ alignItems: 'center', gap: 1, py: 0.35 }}>
          <Tick on={outcome === 'done' || outcome === 'looked'} size={18} />
          <Typography variant="body2" sx={{ flex: 1 }}>
            {atWork.nameOf(code)}
          </Typography>
          <Typography
            variant="body2"
            sx={{
              fontWeight: 600,
              color: outcome === 'open' ? 'text.secondary' : verificationColour[verification],
            }}
          >
            {outcome === 'open'
              ? ''
              : outcome === 'done'
                ? verificationText[verification]
                : outcome === 'looked'
                  ? 'looked at'
                  : 'not done'}
          </Typography>
        </Stack>
      ))}
      {progress.faults.map(({ id, found }) => (
        <Typography key={id} variant="body2" sx={{ py: 0.35, color: 'oxide' }}>
          Found: {found}
        </Typography>
      ))}
      {progress.measured.length > 0 && (
        <Box sx={{ mt: 1.5 }}>
          <Typography variant="h3">Measured</Typography>
          {progress.measured.map(({ id, check, phase, verdict, noComparison, reason }) => (
            <Box key={id} sx={{ borderTop: 1, borderColor: 'divider', py: 0.6 }}>
              <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'center', gap: 1 }}>
                <Typography variant="body2" sx={{ fontWeight: 650 }}>
                  {checkByCode(check)?.name ?? check}, {whenText[phase]}
                </Typography>
                {verdict && <VerdictMark verdict={verdict} noComparison={noComparison} />}
              </Stack>
              <Typography variant="body2" sx={{ color: 'text.secondary' }}>
                {reason}
              </Typography>
            </Box>
          ))}
        </Box>
      )}
      <VisitPhotos atWork={atWork} />
      {open.length > 0 && (
        <Box component="section" aria-label="Open repairs" sx={{ mt: 1.5 }}>
          <Typography variant="h3">Open repairs</Typography>
          {open.map(({ id, found, waitsFor }) => (
            <Box key={id} sx={{ borderTop: 1, borderColor: 'divider', py: 0.6 }}>
              <MuiLink component={Link} to={`/repairs/${id}`} sx={{ fontWeight: 600, typography: 'body2' }}>
                {found}
              </MuiLink>
              <Typography variant="body2" sx={{ color: 'text.secondary' }}>
                {waitsFor}
              </Typography>
            </Box>
          ))}
        </Box>
      )}
      {progress.obstacles.length === 0 && !progress.signed && phase !== 'sign' && (
        <Button onClick={() => onGo('sign')} sx={{ mt: 1.5, px: 0 }}>
          Ready to be signed for
        </Button>
      )}
    </Box>
  );
}
