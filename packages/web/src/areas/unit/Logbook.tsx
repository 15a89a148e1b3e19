import { Box, Button, Link as MuiLink, Stack, Typography } from '@mui/material';
import { useState } from 'react';
import { Link } from 'react-router';
import { checkByCode } from '@entretien/core/checks';
import { isEstimate } from '@entretien/core/plan';
import { formatFigure } from '@entretien/core/quantities';
import type { UnitFacts } from '../../data/queries.js';
import { usePeople } from '../../data/queries.js';
import { Figure } from '../../parts/Figure.js';
import { sayDate } from '../../parts/say-due.js';
import { toLocalText } from '../../parts/WhenField.js';
import { useNow } from '../../parts/use-now.js';
import { sayMark } from '../../parts/say-mark.js';
import { WithdrawDialog, type Withdrawable } from './WithdrawDialog.js';

interface Line {
  readonly words: string;
  readonly isWork: boolean;
  readonly note: string | undefined;
  /** What is unusual about it, in words. */
  readonly marks: readonly string[];
  /** Where a withdrawal of it is sent. */
  readonly path: string;
  /** Whether it was withdrawn or put right. */
  readonly isVoid?: boolean;
  /** Whether something was measured: put right and withdrawn where it is charted. */
  readonly isMeasured?: boolean;
}

/** One day of the logbook: the figure on the meter, and what was done. */
interface DayEntry {
  readonly day: string;
  readonly hours: number | null;
  readonly isEstimated: boolean;
  readonly lines: readonly Line[];
  /** Everything of that day, the plain readings too. */
  readonly all: readonly Line[];
  readonly by: readonly string[];
}

interface Happening extends Line {
  readonly at: number;
  readonly hours: number | null;
  /** Whether the hours are an estimate. */
  readonly isEstimated: boolean;
  readonly by: string;
}

type Withdrawn = UnitFacts['withdrawn'][number];

function momentOf(fact: Withdrawn): number {
  return Date.parse('takenAt' in fact ? fact.takenAt : 'doneAt' in fact ? fact.doneAt : fact.changedAt);
}

function sayWithdrawn(fact: Withdrawn): string {
  if ('takenAt' in fact) return `${formatFigure(fact.hours, { figures: 6, maxDecimals: 1 })} h read`;
  return 'doneAt' in fact ? 'Service' : 'Meter change';
}

function happenings(facts: UnitFacts, taskNames: ReadonlyMap<string, string>): Happening[] {
  return [
    ...facts.services.map((service) => ({
      at: Date.parse(service.doneAt),
      hours: service.hours ?? service.runHours,
      isEstimated: service.hours === undefined && isEstimate(service.runHoursBasis),
      words: service.tasks.map((code) => taskNames.get(code) ?? code).join(', '),
      isWork: true,
      by: service.by,
      note: service.note,
      marks: service.marks.map(sayMark),
      path: `services/${service.id}`,
    })),
    ...facts.readings.map((reading) => ({
      at: Date.parse(reading.takenAt),
      hours: reading.hours,
      isEstimated: reading.source === 'estimated',
      words:
        reading.source === 'estimated'
          ? 'Hours estimated'
          : reading.counts === 'loaded'
            ? 'Loaded hours read'
            : 'Hours read',
      isWork: false,
      by: reading.by,
      note: reading.note,
      marks: reading.marks.map(sayMark),
      path: `readings/${reading.id}`,
    })),
    ...facts.meterChanges.map((change) => ({
      at: Date.parse(change.changedAt),
      hours: change.oldFinalHours,
      isEstimated: false,
      words: `Meter ${change.reason.replace('-', ' ')}, goes on from ${formatFigure(change.newStartHours, { maxDecimals: 1 })} h`,
      isWork: true,
      by: change.by,
      note: change.note,
      marks: change.marks.map(sayMark),
      path: `meter-changes/${change.id}`,
    })),
    ...facts.measurements.map(({ takenAt, check, judgement, by, runHours, runHoursBasis }) => ({
      at: Date.parse(takenAt),
      hours: runHours,
      isEstimated: isEstimate(runHoursBasis),
      words: `${checkByCode(check)?.name ?? check}${judgement.verdict === 'good' ? '' : ` (${judgement.verdict})`}`,
      isWork: false,
      isMeasured: true,
      by,
      note: undefined,
      marks: [],
      path: '',
    })),
    ...facts.putOffs.map(({ id, putOffAt, task, reason, untilOn, untilHours, risk, by }) => ({
      at: Date.parse(putOffAt),
      hours: null,
      isEstimated: false,
      words: `Put off: ${taskNames.get(task) ?? task}, until ${[untilOn, untilHours === undefined ? undefined : `${untilHours} h`].filter(Boolean).join(' or ')}`,
      isWork: true,
      by,
      note: risk === undefined ? reason : `${reason} The risk: ${risk}`,
      marks: [],
      path: `put-offs/${id}`,
    })),
    ...facts.startingPoints.map(({ id, setAt, basis, points, note, by }) => ({
      at: Date.parse(setAt),
      hours: null,
      isEstimated: false,
      words: `${basis === 'inspection' ? 'First inspection' : 'Accepted estimate'} of ${points.map(({ task }) => taskNames.get(task) ?? task).join(', ')}`,
      isWork: true,
      by,
      note,
      marks: [],
      path: `starting-points/${id}`,
    })),
    ...facts.withdrawn.map((fact) => ({
      at: momentOf(fact),
      hours: null,
      isEstimated: false,
      words: sayWithdrawn(fact),
      isWork: false,
      isVoid: true,
      by: fact.by,
      note: fact.voided?.reason ?? 'Put right by a later record.',
      marks: [],
      path: '',
    })),
  ];
}

/** A day with work does not also say that the meter was read: its figure stands there anyway. */
function byDay(all: readonly Happening[], timeZone: string): DayEntry[] {
  const days = new Map<string, Happening[]>();
  for (const one of [...all].sort((a, b) => b.at - a.at)) {
    const day = toLocalText(one.at, timeZone).slice(0, 10);
    days.set(day, [...(days.get(day) ?? []), one]);
  }
  return [...days].map(([day, of]) => {
    const work = of.filter((one) => one.isWork || one.note !== undefined || one.marks.length > 0);
    const measured = of.filter((one) => one.isMeasured);
    const { hours, isEstimated } = of.find((one) => !one.isWork && !one.isVoid && !one.isMeasured) ?? of[0]!;
    const plain = of.filter((one) => !one.isMeasured).slice(0, 1);
    return {
      day,
      hours,
      isEstimated,
      lines: [...(work.length > 0 ? work : measured.length > 0 ? [] : plain), ...inOneLine(measured)],
      all: of.filter((one) => !one.isVoid && !one.isMeasured),
      by: [...new Set(of.map((one) => one.by))],
    };
  });
}

/** What was measured on a day takes one line. */
function inOneLine(measured: readonly Happening[]): Line[] {
  const [first] = measured;
  if (!first) return [];
  return [{ ...first, words: `Measured: ${measured.map(({ words }) => words).join(', ')}` }];
}

interface LogbookProps {
  readonly unitId: string;
  readonly onCorrect: (readingId: string) => void;
  readonly facts: UnitFacts;
  readonly taskNames: ReadonlyMap<string, string>;
  readonly timeZone: string;
}

const SHOWN_AT_FIRST = 14;

/** What was read and done, latest first. */
export function Logbook({ unitId, onCorrect, facts, taskNames, timeZone }: LogbookProps) {
  const now = useNow();
  const { data: people = [] } = usePeople();
  const [shown, setShown] = useState(SHOWN_AT_FIRST);
  const [withdrawn, setWithdrawn] = useState<Withdrawable | null>(null);
  const days = byDay(happenings(facts, taskNames), timeZone);
  const initials = new Map(people.map((person) => [person.id, person.initials]));
  if (days.length === 0) {
    return (
      <Typography sx={{ color: 'text.secondary', py: 2 }}>
        Nothing on record yet. Read the hours to begin.
      </Typography>
    );
  }
  return (
    <Box>
      <MuiLink
        component={Link}
        to={`/units/${unitId}/history`}
        sx={{
          fontWeight: 600,
          typography: 'body2',
          display: 'inline-flex',
          minHeight: 44,
          alignItems: 'center',
        }}
      >
        Whole history on one page
      </MuiLink>
      <Box component="ol" aria-label="Logbook" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {days.slice(0, shown).map(({ day, hours, isEstimated, lines, all, by }) => (
          <Box component="li" key={day} sx={row}>
            <Box
              component="time"
              dateTime={day}
              title={day}
              sx={{ typography: 'body2', color: 'text.secondary' }}
            >
              {sayDate(day, now, timeZone)}
            </Box>
            <Figure
              value={hours === null ? '–' : formatFigure(hours, { figures: 5, maxDecimals: 1 })}
              unit={isEstimated ? 'est.' : 'h'}
              sx={{ fontSize: '0.86rem' }}
            />
            <Box sx={{ minWidth: 0 }}>
              {lines.map((line, index) => (
                <Box key={index}>
                  <Typography
                    variant="body2"
                    sx={{
                      fontWeight: line.isWork ? 600 : 400,
                      color: line.isWork ? 'text.primary' : 'text.secondary',
                      lineHeight: 1.35,
                      textDecoration: line.isVoid ? 'line-through' : 'none',
                    }}
                  >
                    {line.words}
                  </Typography>
                  {line.marks.length > 0 && (
                    <Typography
                      variant="caption"
                      sx={{ color: 'notebook.brass', fontWeight: 600, display: 'block' }}
                    >
                      {line.marks.join(', ')}
                    </Typography>
                  )}
                  {line.note !== undefined && (
                    <Typography variant="caption" sx={{ color: 'text.secondary', display: 'block' }}>
                      {line.note}
                    </Typography>
                  )}
                </Box>
              ))}
            </Box>
            <Stack direction="row" sx={{ alignItems: 'baseline', gap: 0.5 }}>
              <Typography variant="caption" sx={{ color: 'text.secondary' }}>
                {by.map((id) => initials.get(id) ?? '').join(' ')}
              </Typography>
              {all.length > 0 && (
                <Button
                  size="small"
                  aria-label={`Withdraw what was recorded on ${sayDate(day, now, timeZone)}`}
                  onClick={() => setWithdrawn({ day: sayDate(day, now, timeZone), lines: all })}
                  sx={{
                    minWidth: { xs: 44, md: 22 },
                    minHeight: { xs: 44, md: 24 },
                    p: 0,
                    lineHeight: 1,
                    color: 'text.secondary',
                  }}
                >
                  ···
                </Button>
              )}
            </Stack>
          </Box>
        ))}
      </Box>
      {days.length > shown && (
        <Button onClick={() => setShown(shown + 40)} size="small" sx={{ mt: 1 }}>
          Show earlier
        </Button>
      )}
      {withdrawn && (
        <WithdrawDialog
          unitId={unitId}
          {...withdrawn}
          onClose={() => setWithdrawn(null)}
          onCorrect={(id) => {
            setWithdrawn(null);
            onCorrect(id);
          }}
        />
      )}
    </Box>
  );
}

const row = {
  display: 'grid',
  gridTemplateColumns: { xs: '74px 66px minmax(0, 1fr) auto', md: '62px 60px minmax(0, 1fr) auto' },
  columnGap: 1,
  py: 0.7,
  borderBottom: '1px solid var(--mui-palette-divider)',
  alignItems: 'baseline',
};
