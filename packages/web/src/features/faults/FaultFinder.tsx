import { Box, Button, FormControlLabel, Link as MuiLink, Stack, Switch, Typography } from '@mui/material';
import type { CompressorView, FaultCountsView, MeasurementView, RepairView } from '@entretien/contracts';
import { lower } from '@entretien/core/basics';
import {
  beginFinding,
  causeData,
  faultTestByCode,
  recordedAnswers,
  symptomByCode,
  type Counts,
  type Symptom,
} from '@entretien/core/faults';
import { useQuery } from '@tanstack/react-query';
import { useCallback, useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { Caution } from '../../components/Caution.js';
import { HoldButton } from '../../components/isolation/HoldButton.js';
import { ProblemLine } from '../../components/ProblemLine.js';
import { ErrorState, LoadingSkeleton } from '../../components/States.js';
import { StopBanner } from '../../components/stop/StopBanner.js';
import { useNow } from '../../components/use-now.js';
import { getJson } from '../../data/api.js';
import { currentInstant } from '../../data/clock.js';
import { useCompressor, useMeasurements, useModelNotes, useRepairs, useSites } from '../../data/queries.js';
import { CauseOdds, percent } from './CauseOdds.js';
import { ChooseSymptom } from './ChooseSymptom.js';
import { EndOfSearch } from './EndOfSearch.js';
import { FaultPath } from './FaultPath.js';
import { GivenAnswers } from './GivenAnswers.js';
import { LOCK_ON_RECORD, LockHold, MachineStateBar } from './MachineStateBar.js';
import { NextTest, WorthChanging } from './NextTest.js';
import { openedByTest, OpenTest, useHasLock, useIsProved } from './OpenTest.js';
import { useSearch, useSearches, type Search } from './searches.js';
import { confirmedBefore, lastWorkAt } from './suggest.js';
import { useFinding } from './use-finding.js';
import { useOpenRepair } from './use-open-repair.js';

/** What is wrong with a unit: from what is seen to the next test, and to the repair. */
export function FaultFinder() {
  const { compressorId = '' } = useParams();
  const unit = useCompressor(compressorId);
  return (
    <Box sx={{ px: { xs: 2, md: 3.5 }, pt: 2, pb: 4, maxWidth: 1600, width: '100%' }}>
      {unit.isError ? (
        <ErrorState error={unit.error} onRetry={() => void unit.refetch()} />
      ) : unit.data ? (
        <Known key={compressorId} unit={unit.data} />
      ) : (
        <LoadingSkeleton lines={8} />
      )}
    </Box>
  );
}

function useRecord(compressorId: string) {
  const measurements = useMeasurements(compressorId);
  const repairs = useRepairs(compressorId);
  const counts = useQuery({
    queryKey: ['unit', 'fault-counts'],
    queryFn: () => getJson<FaultCountsView>('/fault-counts'),
    retry: false,
  });
  // Without a connection the record is what this device has; a search goes on without it.
  const isPending = [measurements, repairs, counts].some((one) => one.isPending && !one.isError);
  return {
    isPending,
    measurements: measurements.data ?? [],
    repairs: repairs.data ?? [],
    counts: (counts.data?.counts ?? {}) as Counts,
  };
}

function Known({ unit }: { readonly unit: CompressorView }) {
  const { data: sites } = useSites();
  const site = sites?.find(({ id }) => id === unit.siteId);
  const timeZone = site?.timeZone ?? 'UTC';
  const now = useNow();
  const search = useSearch(unit.id);
  const [address, setAddress] = useSearchParams();
  const record = useRecord(unit.id);
  const [isKept, setKept] = useState(false);
  const begin = useSearches((searches) => searches.begin);
  const repairId = address.get('repair');
  const choose = (symptom: Symptom) => {
    setKept(false);
    begin(newSearch(unit, symptom, { ...record, repairId }));
  };
  return (
    <>
      <MuiLink
        component={Link}
        to={repairId === null ? `/units/${unit.id}` : `/repairs/${repairId}`}
        sx={{ fontWeight: 600, display: 'inline-flex', minHeight: 44, alignItems: 'center' }}
      >
        {repairId === null ? unit.tag : `${unit.tag}: the repair`}
      </MuiLink>
      <Typography variant="h1">
        {unit.tag}{' '}
        <Box component="span" sx={{ fontWeight: 450, color: 'text.secondary' }}>
          {site?.name}
        </Box>
      </Typography>
      <StopBanner compressorId={unit.id} timeZone={timeZone} />
      {isKept && (
        <Typography role="status" sx={{ fontWeight: 650, my: 1 }}>
          Kept on this device: the repair is opened as soon as there is a connection.
        </Typography>
      )}
      {record.isPending ? (
        <LoadingSkeleton lines={6} />
      ) : search ? (
        <Searching
          key={`${search.symptom} ${search.begunAt}`}
          unit={unit}
          search={search}
          record={record}
          timeZone={timeZone}
          onKept={() => {
            setAddress({}, { replace: true });
            setKept(true);
          }}
        />
      ) : (
        <Box sx={{ mt: 1.5 }}>
          <ChooseSymptom unit={unit} measurements={record.measurements} now={now} onChoose={choose} />
        </Box>
      )}
    </>
  );
}

interface RecordOfUnit {
  readonly measurements: readonly MeasurementView[];
  readonly repairs: readonly RepairView[];
  readonly counts: Counts;
}

/** A search begins with what was measured since the last work; what did not mend it is left out. */
function newSearch(
  unit: CompressorView,
  symptom: Symptom,
  { measurements, repairs, repairId }: RecordOfUnit & { readonly repairId: string | null },
): Search {
  const at = currentInstant();
  const repair = repairs.find(({ id }) => id === repairId);
  const verdicts = measurements
    .filter(({ voided }) => voided === undefined)
    .map(({ id, check, takenAt, judgement }) => ({
      id,
      check,
      takenAt: Date.parse(takenAt),
      verdict: judgement.verdict,
    }));
  const answers = recordedAnswers(beginFinding(symptom, unit).tests, verdicts, {
    at,
    since: lastWorkAt(repairs),
  });
  const failed = repair?.state === 'proof-failed' ? (repair.causeCode ?? null) : null;
  return {
    compressorId: unit.id,
    tag: unit.tag,
    symptom: symptom.code,
    answers: answers.map(({ test, answer, measurement }) => ({ test, answer, measurement })),
    state: 'run',
    isElectrician: false,
    isClear: symptom.first === undefined,
    repairId: repair?.isOpen ? repair.id : null,
    mended: failed === null ? [] : [failed as Search['mended'][number]],
    begunAt: at,
  };
}

interface SearchingProps {
  readonly unit: CompressorView;
  readonly search: Search;
  readonly record: RecordOfUnit;
  readonly timeZone: string;
  readonly onKept: () => void;
}

function Searching(given: SearchingProps) {
  const { unit, record } = given;
  const hasLock = useHasLock(unit);
  const search: Search =
    hasLock && given.search.state === 'run' ? { ...given.search, state: 'lock' } : given.search;
  const props = { ...given, search };
  const symptom = symptomByCode(search.symptom)!;
  const learns = useSearches((searches) => searches.learns);
  const change = useSearches((searches) => searches.change);
  const { data: notes } = useModelNotes(unit.id);
  const { view, isThinking, hasFailed } = useFinding({
    plate: unit,
    symptom: search.symptom,
    answers: search.answers,
    state: search.state,
    mended: search.mended,
    counts: learns ? record.counts : {},
    known: {
      before: confirmedBefore(record.repairs, search.begunAt),
      notes: (notes ?? []).map(({ about, text }) => ({ about, text })),
    },
    isElectrician: search.isElectrician,
  });
  if (!search.isClear)
    return (
      <Box sx={{ maxWidth: 620, mt: 1 }}>
        <Typography sx={{ mb: 1 }}>{symptom.text}</Typography>
        <Caution text={symptom.first!} />
        <HoldButton fullWidth onHeld={() => change(unit.id, { isClear: true })}>
          Hold: so it is
        </HoldButton>
      </Box>
    );
  if (hasFailed)
    return <Typography role="alert">The fault finder did not start. Reload the page.</Typography>;
  if (!view) return <LoadingSkeleton lines={6} />;
  return (
    <>
      <Headline symptom={symptom} view={view} />
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 1fr) 380px' },
          columnGap: 5,
          rowGap: 3,
          mt: 1.5,
        }}
      >
        <Box sx={{ order: { xs: 2, md: 1 } }}>
          <Box sx={{ display: { xs: 'none', md: 'block' } }}>
            <FaultPath plate={unit} odds={view.odds} />
          </Box>
          <CauseOdds odds={view.odds} reasons={view.reasons} />
          <GivenAnswers
            answers={search.answers}
            why={view.why}
            onUndo={(test) => change(unit.id, { answers: search.answers.filter((one) => one.test !== test) })}
          />
          <Choices {...props} />
        </Box>
        <Box sx={{ order: { xs: 1, md: 2 } }}>
          <WhatNext {...props} view={view} isThinking={isThinking} hasLock={hasLock} />
        </Box>
      </Box>
    </>
  );
}

type View = NonNullable<ReturnType<typeof useFinding>['view']>;

/** What was seen, and how far it has come. */
function Headline({ symptom, view }: { readonly symptom: Symptom; readonly view: View }) {
  const [first, second] = view.odds;
  const name = (code: Parameters<typeof causeData>[0]) => causeData(code).name;
  const says = view.nothingFits
    ? 'None of the known causes explains all of it.'
    : view.isKnown
      ? `Fix first: ${lower(name(view.repair))}.`
      : `Likeliest: ${lower(name(first!.cause))}${second && second.odds > 0.6 * first!.odds ? `; or ${lower(name(second.cause))}` : ''}.`;
  return (
    <Box sx={{ mt: 0.5 }}>
      <Typography sx={{ fontSize: '1.1rem' }} role="status">
        {symptom.text}. <strong>{says}</strong>
      </Typography>
      {view.chanceOfTwo > 0.25 && (
        <Typography variant="body2">Two things at once are possible: {percent(view.chanceOfTwo)}.</Typography>
      )}
      {symptom.caution !== undefined && (
        <Box sx={{ mt: 1, maxWidth: 720 }}>
          <Caution text={symptom.caution} />
        </Box>
      )}
      {view.conflicts.map((text) => (
        <Typography key={text} sx={{ color: 'oxide', fontWeight: 600, mt: 0.5 }}>
          {text}
        </Typography>
      ))}
    </Box>
  );
}

interface WhatNextProps extends SearchingProps {
  readonly view: View;
  readonly isThinking: boolean;
  readonly hasLock: boolean;
}

/** The next test as the machine stands, what would be worth changing that for, and the way into the repair. */
function WhatNext({ unit, search, view, timeZone, isThinking, hasLock, onKept }: WhatNextProps) {
  const change = useSearches((searches) => searches.change);
  const repair = useOpenRepair(unit, search, timeZone);
  const { next, worth } = view;
  const openCode = search.state === 'open' ? (next?.test ?? null) : null;
  const isProved = useIsProved(unit, openCode === null ? [] : openedByTest(openCode, unit));
  const setState = (state: Search['state']) => change(unit.id, { state });
  const onProved = useCallback(() => change(unit.id, { state: 'open' }), [change, unit.id]);
  // A repair is opened early, so that its isolation can be put on record.
  const openEarly = () => void repair.openRepair(null).catch(() => undefined);
  const isShown = next !== null && (next.state !== 'open' || isProved);
  return (
    <>
      <MachineStateBar state={search.state} hasLock={hasLock} onState={setState} />
      {isShown && (
        <NextTest
          key={next.test}
          proposal={next}
          isThinking={isThinking}
          onAnswer={(answer) =>
            change(unit.id, {
              answers: [...search.answers, { test: next.test, answer }],
              ...(faultTestByCode(next.test)?.after === 'run' ? { state: 'run' } : {}),
            })
          }
        />
      )}
      {next !== null && !isShown && (
        <OpenTest
          unit={unit}
          test={next.test}
          repairId={search.repairId}
          isOpening={repair.isSending}
          onOpenRepair={openEarly}
          onProved={onProved}
        />
      )}
      {next === null && worth === null && (
        <Typography sx={{ fontWeight: 600 }}>
          {view.nothingFits
            ? 'Nothing more that could be tested would tell.'
            : 'More testing would take longer than fixing it.'}
        </Typography>
      )}
      {worth !== null && (
        <WorthChanging proposal={worth}>
          {worth.state === 'run' &&
            (hasLock ? (
              <Typography variant="body2">{LOCK_ON_RECORD}</Typography>
            ) : (
              <Button variant="outlined" onClick={() => setState('run')} sx={{ minHeight: 48 }}>
                My lock is off, it may run
              </Button>
            ))}
          {worth.state === 'lock' && <LockHold onLocked={() => setState('lock')} />}
          {worth.state === 'open' && (
            <OpenTest
              unit={unit}
              test={worth.test}
              repairId={search.repairId}
              isOpening={repair.isSending}
              onOpenRepair={openEarly}
              onProved={onProved}
            />
          )}
        </WorthChanging>
      )}
      <ProblemLine error={repair.error} />
      <EndOfSearch unit={unit} search={search} view={view} timeZone={timeZone} onKept={onKept} />
    </>
  );
}

/** Who is there, what counts, and the way back to the beginning. */
function Choices({ unit, search, record }: SearchingProps) {
  const { learns, setLearns, change, end } = useSearches();
  const cases = Object.values(record.counts[search.symptom] ?? {}).reduce((sum, one) => sum + one, 0);
  return (
    <Stack sx={{ mt: 3, alignItems: 'start', gap: 0.5 }}>
      <FormControlLabel
        control={
          <Switch
            checked={search.isElectrician}
            onChange={(_event, isElectrician) => change(unit.id, { isElectrician })}
          />
        }
        label="A licensed electrician is here"
      />
      <FormControlLabel
        control={<Switch checked={learns} onChange={(_event, on) => setLearns(on)} />}
        label={`Our own confirmed cases count (${cases} of this kind)`}
      />
      <Button onClick={() => end(unit.id)} sx={{ minHeight: 44 }}>
        Begin again with what is seen
      </Button>
    </Stack>
  );
}
