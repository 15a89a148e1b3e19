import { Box, Link as MuiLink, Stack, Typography } from '@mui/material';
import type { FleetCompressorView } from '@entretien/contracts';
import { Link } from 'react-router';
import { figureFont } from '../../components/theme/theme.js';
import { stateColour } from '../../components/DropMark.js';
import { useFindings } from '../../data/queries.js';
import { Figure } from '../../components/Figure.js';
import { VerdictMark } from '../../components/VerdictMark.js';
import {
  describeReadingNeed,
  describeUseWarning,
  compressorsToRead,
  compressorsUsedMore,
  waitingWork,
} from './today-list.js';

interface BesideProps {
  readonly units: readonly FleetCompressorView[];
  /** Whether these are the most urgent units only. */
  readonly isPart: boolean;
}

/** What else there is to see to: machines without history, and readings that have grown old. */
export function TodaySidebar({ units, isPart }: BesideProps) {
  const unknown = units.filter(
    (unit) => unit.counts.unknown > 0 && unit.lastReadingAt !== null && unit.counts.fresh === 0,
  );
  const stale = compressorsToRead(units);
  const used = compressorsUsedMore(units);
  return (
    <Stack spacing={3} sx={{ px: { xs: 2, md: 2.75 }, py: 2 }}>
      {isPart && (
        <Typography variant="body2" sx={{ color: 'text.secondary', mb: -1.5 }}>
          Of the {units.length} most urgent units:
        </Typography>
      )}
      {used.length > 0 && (
        <BesideList title="Used more than before" note="Something falls due sooner for it.">
          {used.map((unit) => (
            <BesideRow
              key={unit.compressorId}
              unit={unit}
              to={`/units/${unit.compressorId}?tab=hours`}
              under={describeUseWarning(unit.useWarning!)}
            />
          ))}
        </BesideList>
      )}
      <BesideList
        title="Read the hours"
        note="A reading would make their dates surer."
        empty="No readings needed."
      >
        {stale.map((unit) => (
          <BesideRow
            key={unit.compressorId}
            unit={unit}
            to={`/sites/${unit.siteId}/walk`}
            under={describeReadingNeed(unit.readingNeed!)}
          />
        ))}
      </BesideList>
      <Findings />
      <BesideList
        title="Open work"
        note="On how many units each is late, due or nearing."
        empty="Nothing is late, due or nearing."
      >
        {waitingWork(units).map(({ name, state, count }) => (
          <Stack key={name} direction="row" sx={{ ...besideRow, minHeight: 34 }}>
            <Typography variant="body2" noWrap>
              {name}
            </Typography>
            <Figure value={String(count)} sx={{ fontSize: '0.9rem', color: stateColour(state) }} />
          </Stack>
        ))}
      </BesideList>
      {unknown.length > 0 && (
        <BesideList title="Inspect first" note="Nobody can say what was ever done.">
          {unknown.map((unit) => (
            <BesideRow key={unit.compressorId} unit={unit} value={`${unit.counts.unknown} tasks`} />
          ))}
        </BesideList>
      )}
      <MuiLink
        component={Link}
        to="/units/new"
        sx={{ fontWeight: 600, textDecoration: 'none', display: 'block', py: 0.5 }}
      >
        Add a unit
      </MuiLink>
      <MuiLink
        component={Link}
        to="/lists"
        sx={{ fontWeight: 600, textDecoration: 'none', display: 'block', py: 0.5, mt: '0 !important' }}
      >
        Import readings
      </MuiLink>
    </Stack>
  );
}

const FINDINGS_SHOWN = 6;

/** What was lately measured and found other than good. */
function Findings() {
  const { data } = useFindings();
  if (!data || data.total === 0) return null;
  const rest = data.total - Math.min(data.total, FINDINGS_SHOWN);
  return (
    <BesideList
      title="Open findings"
      note={rest > 0 ? `The gravest of ${data.total}.` : 'Measured in the last two months, not better since.'}
    >
      {data.items.slice(0, FINDINGS_SHOWN).map(({ measurement, checkName, tag }) => (
        <Stack
          key={measurement.id}
          direction="row"
          component={Link}
          to={`/units/${measurement.compressorId}?tab=checks&check=${measurement.check}`}
          title={measurement.judgement.reason}
          // What was found needs its line, and so does what to do about it.
          sx={{ ...besideRow, flexDirection: 'column', alignItems: 'start' }}
        >
          <Box sx={{ minWidth: 0 }}>
            <Typography variant="body2" sx={{ lineHeight: 1.25, py: 0.25 }}>
              <Box component="span" sx={{ ...figureFont, fontWeight: 650, pr: 0.75 }}>
                {tag}
              </Box>{' '}
              <Box component="span" sx={{ color: 'text.secondary' }}>
                {checkName}
              </Box>
            </Typography>
          </Box>
          <VerdictMark {...measurement.judgement} />
        </Stack>
      ))}
    </BesideList>
  );
}

interface BesideListProps {
  readonly title: string;
  readonly note: string;
  readonly empty?: string;
  readonly children: React.ReactNode[];
}

function BesideList({ title, note, empty, children }: BesideListProps) {
  return (
    <Box component="section">
      <Typography variant="h3" component="h2">
        {title}
      </Typography>
      <Typography variant="body2" sx={{ color: 'text.secondary', mb: 0.5 }}>
        {children.length === 0 ? empty : note}
      </Typography>
      {children}
    </Box>
  );
}

const edge = '1px solid var(--mui-palette-divider)';

const besideRow = {
  justifyContent: 'space-between',
  alignItems: 'center',
  gap: 1,
  minHeight: { xs: 44, md: 36 },
  borderBottom: edge,
  color: 'inherit',
  textDecoration: 'none',
};

interface BesideRowProps {
  readonly unit: FleetCompressorView;
  readonly to?: string;
  readonly value?: string;
  readonly under?: string;
}

function BesideRow({ unit, to = `/units/${unit.compressorId}`, value, under }: BesideRowProps) {
  return (
    <Stack direction="row" component={Link} to={to} sx={besideRow}>
      <Box sx={{ minWidth: 0, py: under === undefined ? 0 : 0.5 }}>
        <Typography variant="body2" noWrap>
          <Box component="span" sx={{ ...figureFont, fontWeight: 650, pr: 0.75 }}>
            {unit.tag}
          </Box>
          <Box component="span" sx={{ color: 'text.secondary' }}>
            {unit.siteName}
          </Box>
        </Typography>
        {under !== undefined && (
          <Typography variant="caption" sx={{ color: 'brass', display: 'block', lineHeight: 1.3 }}>
            {under}
          </Typography>
        )}
      </Box>
      {value !== undefined && <Figure value={value} sx={{ fontSize: '0.84rem' }} />}
    </Stack>
  );
}
