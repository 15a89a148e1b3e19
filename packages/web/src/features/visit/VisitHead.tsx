import { Box, ButtonBase, Stack, Typography } from '@mui/material';
import { figureFont } from '../../components/theme/theme.js';
import { fromMeter } from '@entretien/core/hours';
import { RunHours } from '../../components/RunHours.js';
import { StopMark } from '../../components/stop/StopMark.js';
import { phaseNames, phases, phasesDone, type Phase } from './phases.js';
import type { CompressorAtWork } from './use-visit.js';

interface HeadProps {
  readonly atWork: CompressorAtWork;
  readonly phase: Phase;
  readonly onGo: (phase: Phase, unit?: string) => void;
}

/** Which machine, and how far one is: six parts of a visit, each to be gone to. */
export function VisitHead({ atWork, phase, onGo }: HeadProps) {
  const { visit, view, progress } = atWork;
  const done = phasesDone(atWork);
  const { meter, runHours } = view.standing;
  // What was read in this visit beats what is reckoned.
  const shown =
    progress.hours === null
      ? view.standing
      : { runHours: fromMeter(meter, progress.hours), runHoursBasis: 'read' as const, meter };
  return (
    <Box sx={{ borderBottom: 1, borderColor: 'divider', px: { xs: 2, md: 3.5 }, pt: 1.5, pb: 1 }}>
      <Stack direction="row" sx={{ alignItems: 'baseline', gap: 1.25 }}>
        <Typography variant="h1" component="h1" sx={figureFont}>
          {view.tag}
        </Typography>
        <Typography sx={{ color: 'text.secondary', minWidth: 0, flex: 1 }} noWrap>
          {visit.siteName}
        </Typography>
        <StopMark compressorId={view.compressorId} />
        {(progress.hours ?? runHours) !== null && <RunHours of={shown} size="1.1rem" />}
      </Stack>
      {visit.units.length > 1 && (
        <Stack
          direction="row"
          component="nav"
          aria-label="Units of the visit"
          sx={{ gap: 1, mt: 0.5, flexWrap: 'wrap' }}
        >
          {visit.units.map(({ compressorId, tag }) => (
            <ButtonBase
              key={compressorId}
              onClick={() => onGo('prepare', compressorId)}
              aria-current={compressorId === view.compressorId ? 'true' : undefined}
              sx={{
                ...figureFont,
                fontWeight: 700,
                minHeight: 44,
                px: 1,
                borderBottom: 2,
                borderColor: compressorId === view.compressorId ? 'primary.main' : 'transparent',
              }}
            >
              {tag}
            </ButtonBase>
          ))}
        </Stack>
      )}
      <Box
        component="nav"
        aria-label="Parts of the visit"
        sx={{ display: 'grid', gridTemplateColumns: 'repeat(6, minmax(0, 1fr))', gap: 0.75, mt: 0.5 }}
      >
        {phases.map((one) => (
          <ButtonBase
            key={one}
            onClick={() => onGo(one)}
            aria-current={one === phase ? 'step' : undefined}
            aria-label={`${phaseNames[one]}${done.has(one) ? ', done' : ''}`}
            sx={{
              display: 'block',
              textAlign: 'left',
              minHeight: 44,
              pt: 1.25,
              '&::before': {
                content: '""',
                display: 'block',
                height: 5,
                borderRadius: 3,
                // Behind one: filled. Ahead: an empty outline; so that colour alone tells nothing.
                bgcolor: one === phase ? 'brass' : done.has(one) ? 'primary.main' : 'transparent',
                boxShadow:
                  one === phase || done.has(one) ? 'none' : 'inset 0 0 0 1px var(--mui-palette-strongRule)',
              },
            }}
          >
            <Typography
              component="span"
              sx={{
                fontSize: { xs: '0.72rem', md: '0.84rem' },
                fontWeight: one === phase ? 700 : 450,
                color: one === phase ? 'brass' : 'text.secondary',
              }}
            >
              {phaseNames[one]}
              {done.has(one) && one !== phase && (
                <Box component="span" sx={{ display: { xs: 'none', md: 'inline' } }}>
                  {' '}
                  ✓
                </Box>
              )}
            </Typography>
          </ButtonBase>
        ))}
      </Box>
    </Box>
  );
}
