import ArrowBackIcon from '@mui/icons-material/ArrowBack';
import { Box, Button, IconButton, Stack, Typography } from '@mui/material';
import type { CompressorView, MeasurementView, ServiceView } from '@entretien/contracts';
import { chartedFigure, checkByCode, verdictInShort, type CheckDefinition } from '@entretien/core/checks';
import { stationName } from '@entretien/core/machine';
import { Link, useSearchParams } from 'react-router';
import { usePreferences } from '../../../data/preferences.js';
import { useMeasurements } from '../../../data/queries.js';
import { shownFigure } from '../../../components/checks/format-figure.js';
import { Figure } from '../../../components/Figure.js';
import { formatAgo } from '../../../components/describe-due.js';
import { ErrorState, LoadingSkeleton } from '../../../components/States.js';
import { useNow } from '../../../components/use-now.js';
import { Vial, verdictColour } from '../../../components/VerdictMark.js';
import { latestByCheck } from './check-chart.js';
import { CheckDetail } from './CheckDetail.js';
import { byStation } from './MeasureDialog.js';

export interface ChecksPanelProps {
  readonly unit: CompressorView;
  readonly services: readonly ServiceView[];
  readonly timeZone: string;
  readonly onMeasure: (check: CheckDefinition | undefined, corrects?: MeasurementView) => void;
}

/** What was measured on a unit, station by station; or one check over the run hours. */
export function ChecksPanel(props: ChecksPanelProps) {
  const [search, setSearch] = useSearchParams();
  const check = checkByCode(search.get('check') ?? '');
  const show = (code: string | null) =>
    setSearch(code === null ? { tab: 'checks' } : { tab: 'checks', check: code });
  const measurements = useMeasurements(props.unit.id);
  if (measurements.isError) {
    return <ErrorState error={measurements.error} onRetry={() => void measurements.refetch()} />;
  }
  if (!measurements.data) return <LoadingSkeleton lines={6} />;
  if (!check) return <CheckList {...props} measurements={measurements.data} onShow={show} />;
  return (
    <Box>
      <Stack direction="row" sx={{ alignItems: 'center', gap: 0.5, mb: 0.5 }}>
        <IconButton aria-label="All checks" onClick={() => show(null)} edge="start">
          <ArrowBackIcon />
        </IconButton>
        <Box sx={{ flex: 1, minWidth: 0 }}>
          <Typography variant="h2" sx={{ lineHeight: 1.15 }}>
            {check.name}
          </Typography>
          <Typography variant="caption" sx={{ color: 'text.secondary' }}>
            {stationName(props.unit, check.station(props.unit))}
          </Typography>
        </Box>
        <Button variant="outlined" onClick={() => props.onMeasure(check)}>
          Measure
        </Button>
      </Stack>
      {isBad(latestByCheck(measurements.data).get(check.code)) && (
        <Button component={Link} to={`/units/${props.unit.id}/faults`} sx={{ minHeight: 44, px: 0.5 }}>
          Find the cause
        </Button>
      )}
      <CheckDetail {...props} check={check} />
    </Box>
  );
}

/** Whether something has to be done about what was measured last. */
function isBad(measured: MeasurementView | undefined): boolean {
  return measured?.judgement.verdict === 'act' || measured?.judgement.verdict === 'stop';
}

interface ListProps extends ChecksPanelProps {
  readonly measurements: readonly MeasurementView[];
  readonly onShow: (code: string) => void;
}

function CheckList({ unit, measurements, timeZone, onMeasure, onShow }: ListProps) {
  const latest = latestByCheck(measurements);
  const now = useNow();
  return (
    <Box>
      <Button variant="outlined" fullWidth onClick={() => onMeasure(undefined)} sx={{ mb: 1.5 }}>
        Measure something
      </Button>
      {byStation(unit).map(({ station, checks }) => (
        <Box key={station} component="section" sx={{ mb: 1.25 }}>
          <Typography variant="body2" component="h3" sx={{ color: 'text.secondary' }}>
            {station}
          </Typography>
          {checks.map((check) => (
            <CheckRow
              key={check.code}
              check={check}
              measured={latest.get(check.code)}
              now={now}
              timeZone={timeZone}
              onShow={() => onShow(check.code)}
            />
          ))}
        </Box>
      ))}
    </Box>
  );
}

interface RowProps {
  readonly check: CheckDefinition;
  readonly measured: MeasurementView | undefined;
  readonly now: number;
  readonly timeZone: string;
  readonly onShow: () => void;
}

function CheckRow({ check, measured, now, timeZone, onShow }: RowProps) {
  const units = usePreferences((preferences) => preferences.units);
  const figure = measured && chartedFigure(check.figure, measured);
  const shown = figure && check.figure ? shownFigure(figure.value, check.figure, units) : null;
  return (
    <Button
      onClick={onShow}
      fullWidth
      sx={{
        display: 'grid',
        gridTemplateColumns: 'minmax(0, 1fr) auto 84px',
        columnGap: 1,
        alignItems: 'center',
        textAlign: 'left',
        color: 'text.primary',
        fontWeight: 400,
        minHeight: 44,
        px: 0.5,
        py: 0.25,
        borderBottom: 1,
        borderColor: 'divider',
        borderRadius: 0,
      }}
    >
      <Box sx={{ minWidth: 0 }}>
        <Typography variant="body2" sx={{ fontWeight: 600, lineHeight: 1.25 }}>
          {check.name}
        </Typography>
        <Typography variant="caption" sx={{ color: 'text.secondary' }}>
          {measured ? formatAgo(Date.parse(measured.takenAt), now, timeZone) : 'not measured yet'}
        </Typography>
      </Box>
      {shown ? (
        <Figure value={shown.figure} unit={shown.unit.split(' ')[0]!} sx={{ fontSize: '0.95rem' }} />
      ) : (
        <span />
      )}
      {measured ? (
        <Stack
          direction="row"
          sx={{ alignItems: 'center', gap: 0.75, color: verdictColour(measured.judgement.verdict) }}
        >
          <Vial {...measured.judgement} />
          <Typography variant="caption" sx={{ fontWeight: 700 }}>
            {verdictInShort(measured.judgement.verdict)}
          </Typography>
        </Stack>
      ) : (
        <span />
      )}
    </Button>
  );
}
