import { pointLists } from '@entretien/core/faults';
import { Alert, Box, Button, Checkbox, Link as MuiLink, Stack, Typography } from '@mui/material';
import { DEFAULT_PERSON_ID, type PointTaskView, type PointView } from '@entretien/contracts';
import { lower } from '@entretien/core/basics';
import { oilNames } from '@entretien/core/points';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { figureFont } from '../../components/theme/theme.js';
import { Caution } from '../../components/Caution.js';
import { DropMark, stateColour, stateText } from '../../components/DropMark.js';
import { formatDate } from '../../components/describe-due.js';
import { ErrorState, LoadingSkeleton } from '../../components/States.js';
import { useFormatQuantity } from '../../components/use-format-quantity.js';
import { useNow } from '../../components/use-now.js';
import { usePreferences } from '../../data/preferences.js';
import { usePoint } from '../../data/queries.js';
import { PointDialog } from './PointDialog.js';
import { PointDrawing } from './PointDrawing.js';
import { FaultLists } from '../../components/FaultLists.js';
import { PointHistory } from './PointHistory.js';
import { PointWork } from './PointWork.js';
import { usePointDraft } from './use-point-draft.js';

/** One point of use: what it is, what is due, what was done. */
export function PointPage() {
  const { pointId = '' } = useParams();
  const point = usePoint(pointId);
  return (
    <Box sx={{ px: { xs: 2, md: 3.5 }, pt: 1.5, pb: 5, width: '100%', maxWidth: 1240 }}>
      {point.isPending && <LoadingSkeleton lines={8} />}
      {point.isError && <ErrorState error={point.error} onRetry={() => void point.refetch()} />}
      {point.data && <Point key={point.data.id} point={point.data} />}
    </Box>
  );
}

function Point({ point }: { readonly point: PointView }) {
  const by = usePreferences((preferences) => preferences.personId) ?? DEFAULT_PERSON_ID;
  const { draft, others, begin, put, clear } = usePointDraft(point.id, by);
  const [isEditing, setEditing] = useState(false);
  const format = useFormatQuantity();
  return (
    <>
      <Stack direction="row" sx={{ alignItems: 'start', justifyContent: 'space-between', gap: 1, mb: 1 }}>
        <Box sx={{ minWidth: 0 }}>
          <Typography variant="h1">
            <Box component="span" sx={figureFont}>
              {point.tag}
            </Box>{' '}
            <Box component="span" sx={{ fontWeight: 450 }}>
              {point.place}
            </Box>
          </Typography>
          <Typography sx={{ color: 'text.secondary' }}>
            <MuiLink component={Link} to="/points">
              Point of use
            </MuiLink>
            , {point.siteName}
          </Typography>
        </Box>
        <Button onClick={() => setEditing(true)} sx={{ minHeight: 44, flex: 'none' }}>
          Edit
        </Button>
      </Stack>
      {point.stops.map(({ workId, check, why }) => (
        <Alert key={workId + check} severity="error" variant="filled" sx={{ mb: 1.5, fontWeight: 600 }}>
          Out of use: {why} It comes back when it was looked at again and is sound.
        </Alert>
      ))}
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 1.35fr) minmax(0, 1fr)' },
          columnGap: 6,
          rowGap: 3,
          alignItems: 'start',
        }}
      >
        <Box>
          <PointDrawing point={point} bar={(value) => format(value, 'pressure')} />
          {draft ? (
            <PointWork point={point} draft={draft} put={put} onDone={clear} />
          ) : (
            <Due point={point} others={others} onBegin={begin} />
          )}
        </Box>
        <Box>
          <Facts point={point} bar={(value) => format(value, 'pressure')} />
          <PointHistory point={point} />
          <FaultLists title="What is wrong here?" lists={pointLists} />
        </Box>
      </Box>
      {isEditing && <PointDialog point={point} onClose={() => setEditing(false)} />}
    </>
  );
}

interface DueProps {
  readonly point: PointView;
  readonly others: boolean;
  readonly onBegin: (chosen: readonly string[]) => void;
}

/** What comes round, the most urgent first; what is to be done now is chosen here. */
function Due({ point, others, onBegin }: DueProps) {
  const due = point.tasks
    .filter(({ state }) => state === 'due' || state === 'overdue')
    .map(({ code }) => code);
  const [chosen, setChosen] = useState<readonly string[]>(due);
  const toggle = (code: string) =>
    setChosen(chosen.includes(code) ? chosen.filter((one) => one !== code) : [...chosen, code]);
  const opens = point.tasks.some((task) => task.opens && chosen.includes(task.code));
  return (
    <Box component="section" aria-label="What is due" sx={{ mt: 1 }}>
      <Typography variant="h3" component="h2" sx={{ mb: 0.5 }}>
        What is due
      </Typography>
      <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {point.tasks.map((task) => (
          <DueRow
            key={task.code}
            task={task}
            timeZone={point.timeZone}
            isChosen={chosen.includes(task.code)}
            onToggle={() => toggle(task.code)}
          />
        ))}
      </Box>
      {others && (
        <Typography variant="body2" sx={{ color: 'brass', fontWeight: 600, mt: 1 }}>
          Somebody else began work here on this device. What they shut off does not hold for you.
        </Typography>
      )}
      <Stack direction="row" sx={{ gap: 1, mt: 1.5, alignItems: 'center', flexWrap: 'wrap' }}>
        <Button
          variant="contained"
          size="large"
          onClick={() => onBegin(chosen)}
          sx={{ minHeight: 52, px: 3 }}
        >
          {chosen.length === 0
            ? 'Only look at it'
            : `Begin: ${chosen.length} ${chosen.length === 1 ? 'task' : 'tasks'}`}
        </Button>
        {opens && (
          <Typography variant="body2" sx={{ color: 'text.secondary', flex: 1, minWidth: 160 }}>
            It is opened: shut off, vented and proved empty first. The compressor runs on.
          </Typography>
        )}
      </Stack>
    </Box>
  );
}

interface DueRowProps {
  readonly task: PointTaskView;
  readonly timeZone: string;
  readonly isChosen: boolean;
  readonly onToggle: () => void;
}

function DueRow({ task, timeZone, isChosen, onToggle }: DueRowProps) {
  const now = useNow();
  const { name, state, used, dueOn, because, lastDoneAt } = task;
  const isWaiting = state !== 'fresh';
  return (
    <Stack
      component="li"
      direction="row"
      sx={{ alignItems: 'center', gap: 1, borderBottom: 1, borderColor: 'divider', minHeight: 60 }}
    >
      <Checkbox
        checked={isChosen}
        onChange={onToggle}
        slotProps={{ input: { 'aria-label': name } }}
        sx={{ width: 48, height: 48 }}
      />
      <DropMark state={state} used={used} />
      <Box sx={{ flex: 1, minWidth: 0, py: 0.75 }}>
        <Typography sx={{ fontWeight: 600, lineHeight: 1.25 }}>{name}</Typography>
        <Typography variant="body2" sx={{ color: 'text.secondary', lineHeight: 1.3 }}>
          {because ??
            (lastDoneAt === null
              ? 'Not done here yet.'
              : `Last ${formatDate(lastDoneAt.slice(0, 10), now, timeZone)}.`)}
        </Typography>
      </Box>
      <Typography
        variant="body2"
        sx={{
          flex: 'none',
          fontWeight: 650,
          textAlign: 'right',
          color: isWaiting ? stateColour(state) : 'text.secondary',
        }}
      >
        {state === 'fresh' ? '' : `${stateText[state]} `}
        {formatDate(dueOn, now, timeZone)}
      </Typography>
    </Stack>
  );
}

interface FactsProps {
  readonly point: PointView;
  readonly bar: (value: number) => string;
}

/** What is known of it, the hazards first. */
function Facts({ point, bar }: FactsProps) {
  const yes = (value: boolean | null | undefined, isSo: string, isNot: string) =>
    value === undefined || value === null ? null : value ? isSo : isNot;
  const lines: readonly (readonly [string, string | null])[] = [
    ['Fed by', [...point.units, ...point.vessels].map(({ tag }) => tag).join(', ')],
    ['Breathed from', point.isBreathed ? 'yes' : 'no'],
    ['Rated behind it', point.ratedBar ? bar(point.ratedBar) : null],
    [
      'Filter',
      point.filterMicron
        ? [
            `${point.filterMicron} µm`,
            point.bowl && `${point.bowl} bowl`,
            yes(point.hasGuard, 'guard', 'no guard'),
            point.drain && `drained ${point.drain === 'manual' ? 'by hand' : 'by itself'}`,
          ]
            .filter(Boolean)
            .join(', ')
        : null,
    ],
    [
      'Regulator',
      point.regulatorBar
        ? [`${bar(point.regulatorBar)} under flow`, yes(point.isRelieving, 'relieves', 'does not relieve')]
            .filter(Boolean)
            .join(', ')
        : null,
    ],
    [
      'Lubricator',
      point.lubricator
        ? [
            point.lubricator.replace('-', ' '),
            point.oil && oilNames[point.oil],
            point.dropsPerMinute &&
              `${point.dropsPerMinute} ${point.dropsPerMinute === 1 ? 'drop' : 'drops'} a minute`,
            point.moreBy && `more: ${point.moreBy}`,
          ]
            .filter(Boolean)
            .join(', ')
        : null,
    ],
  ];
  return (
    <Box component="section" aria-label="What it is" sx={{ mb: 3 }}>
      <Typography variant="h3" component="h2" sx={{ mb: 0.75 }}>
        What it is
      </Typography>
      <Caution text={`When the air goes: ${lower(point.whenAirGoes)}.`} />
      {point.doubts.map(({ code, sentence }) => (
        <Caution key={code} text={sentence} />
      ))}
      <Box component="dl" sx={{ m: 0 }}>
        {lines.map(([name, text]) =>
          text === null ? null : (
            <Stack
              key={name}
              direction="row"
              sx={{ gap: 1, py: 0.5, borderBottom: 1, borderColor: 'divider' }}
            >
              <Typography
                component="dt"
                variant="body2"
                sx={{ width: 128, flex: 'none', color: 'text.secondary' }}
              >
                {name}
              </Typography>
              <Typography component="dd" variant="body2" sx={{ m: 0 }}>
                {text}
              </Typography>
            </Stack>
          ),
        )}
      </Box>
      {point.units.map(({ id, tag }) => (
        <Button key={id} component={Link} to={`/units/${id}`} sx={{ minHeight: 44, px: 0.5, mr: 1 }}>
          {tag}
        </Button>
      ))}
    </Box>
  );
}
