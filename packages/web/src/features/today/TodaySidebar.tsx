import { Box, Link as MuiLink, Stack, Typography } from '@mui/material';
import type { FleetCompressorView } from '@entretien/contracts';
import { Link } from 'react-router';
import { figureFont } from '../../components/theme/theme.js';
import { stateColour } from '../../components/DropMark.js';
import { formatDate } from '../../components/describe-due.js';
import { useNow } from '../../components/use-now.js';
import { useFindings, useOpenWork, usePoints } from '../../data/queries.js';
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
      <OpenRepairs />
      <OpenVisits />
      <Findings />
      <PointsDue />
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
      <BesideList
        title="Work due"
        note="On how many units each is late, due or nearing."
        empty="Nothing is late, due or nearing."
      >
        {waitingWork(units).map(({ name, state, count }) => (
          <Stack
            key={name}
            direction="row"
            component={Link}
            to={`/units?find=${encodeURIComponent(name)}`}
            sx={besideRow}
          >
            <Typography variant="body2" noWrap>
              {name}
            </Typography>
            <Figure value={String(count)} sx={{ fontSize: '0.9rem', color: stateColour(state) }} />
          </Stack>
        ))}
      </BesideList>
      <VanShort />
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

/** So many of a list stand here; the rest where it leads to. */
const SHOWN = 6;

/** Repairs that nothing has proved yet, wherever they are. */
function OpenRepairs() {
  const repairs = useOpenWork().data?.repairs ?? [];
  if (repairs.length === 0) return null;
  const rest = repairs.length > SHOWN ? `The latest of ${repairs.length}.` : 'Found, and not proved yet.';
  return (
    <BesideList title="Open repairs" note={rest}>
      {repairs.slice(0, SHOWN).map(({ id, tag, found, waitsFor }) => (
        <OpenRow key={id} to={`/repairs/${id}`} tag={tag} text={found} under={waitsFor} />
      ))}
    </BesideList>
  );
}

/** Visits that nobody has signed for yet. */
function OpenVisits() {
  const visits = useOpenWork().data?.visits ?? [];
  const now = useNow();
  if (visits.length === 0) return null;
  const note = visits.length > SHOWN ? `The latest of ${visits.length}.` : 'Planned, or not signed for.';
  return (
    <BesideList title="Open visits" note={note}>
      {visits.slice(0, SHOWN).map(({ id, siteName, plannedOn, units, state }) => {
        const open = units.filter((unit) => unit.state === 'open').map(({ tag }) => tag);
        const on = `${state === 'planned' ? 'for' : 'of'} ${formatDate(plannedOn, now, 'UTC')}`;
        return <OpenRow key={id} to={`/visits/${id}`} tag={open.join(' ')} text={siteName} under={on} />;
      })}
    </BesideList>
  );
}

/** What has to go into the van before what is due can be done. */
function VanShort() {
  const short = useOpenWork().data?.short ?? [];
  if (short.length === 0) return null;
  const note = short.length > SHOWN ? `The first of ${short.length}, for what is due.` : 'For what is due.';
  return (
    <BesideList title="The van is short of" note={note}>
      {short.slice(0, SHOWN).map(({ name, needed, inVan, partId, tags }) => (
        <Stack
          key={partId ?? name}
          direction="row"
          component={Link}
          to={partId === null ? '/parts' : `/parts?q=${encodeURIComponent(name)}`}
          title={tags.join(', ')}
          sx={besideRow}
        >
          <Typography variant="body2" sx={{ lineHeight: 1.25, py: 0.25 }}>
            {name}
          </Typography>
          <Figure
            value={partId === null ? `${needed}` : `${inVan} of ${needed}`}
            sx={{ fontSize: '0.9rem', color: 'brass', flex: 'none' }}
          />
        </Stack>
      ))}
    </BesideList>
  );
}

interface OpenRowProps {
  readonly to: string;
  readonly tag: string;
  readonly text: string;
  readonly under: string | null;
}

function OpenRow({ to, tag, text, under }: OpenRowProps) {
  return (
    <Box component={Link} to={to} sx={{ ...besideRow, display: 'block', py: 0.5 }}>
      <Typography variant="body2" sx={{ lineHeight: 1.3 }}>
        <Box component="span" sx={{ ...figureFont, fontWeight: 650, pr: 0.75 }}>
          {tag}
        </Box>{' '}
        {text}
      </Typography>
      {under && (
        <Typography variant="caption" sx={{ color: 'text.secondary', display: 'block', lineHeight: 1.3 }}>
          {under}
        </Typography>
      )}
    </Box>
  );
}

/** What was lately measured and found other than good. */
function Findings() {
  const { data } = useFindings();
  if (!data || data.total === 0) return null;
  const rest = data.total - Math.min(data.total, SHOWN);
  return (
    <BesideList
      title="Open findings"
      note={rest > 0 ? `The gravest of ${data.total}.` : 'Measured in the last two months, not better since.'}
    >
      {data.items.slice(0, SHOWN).map(({ measurement, checkName, tag }) => (
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

/** Points of use with something due, or out of use. */
function PointsDue() {
  const { data = [] } = usePoints('?show=due');
  if (data.length === 0) return null;
  const note = data.length > SHOWN ? `The most urgent of ${data.length}.` : 'Due behind the network.';
  return (
    <BesideList title="Points of use" note={note}>
      {data.slice(0, SHOWN).map(({ id, tag, place, siteName, state, tasks }) => (
        <OpenRow
          key={id}
          to={`/points/${id}`}
          tag={tag}
          text={place ?? siteName}
          under={state === 'stopped' ? 'out of use' : (tasks[0]?.name ?? null)}
        />
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
