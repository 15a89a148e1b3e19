import { Box, Button, useMediaQuery, type Theme } from '@mui/material';
import type {
  CompressorView,
  MeasurementView,
  PlanView,
  SiteView,
  StandingView,
  TaskStandingView,
  VesselView,
} from '@entretien/contracts';
import { useMemo, useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { useKeys } from '../../components/use-keys.js';
import { useMay } from '../../data/me.js';
import { usePreferences } from '../../data/preferences.js';
import {
  useFleet,
  useMeasurements,
  useOpenWork,
  usePlan,
  useSites,
  useStanding,
  useFollowUpsOf,
  useStops,
  useCompressor,
  useCompressorFacts,
  useVessels,
  type CompressorFacts,
} from '../../data/queries.js';
import { HourRuler } from '../../components/ruler/HourRuler.js';
import { ErrorState, LoadingSkeleton } from '../../components/States.js';
import { MeterQuestion } from './MeterQuestion.js';
import { FollowUpBanner } from '../../components/follow-ups/FollowUpBanner.js';
import { StopBanner } from '../../components/stop/StopBanner.js';
import { WithSide } from '../../components/WithSide.js';
import { PlanVisitDialog } from '../visits/index.js';
import { AirPath } from './air-path/AirPath.js';
import { AirWalk } from './air-path/AirWalk.js';
import { machineFacts, stationToShow, type StationFacts } from './air-path/station-facts.js';
import { StationPanel } from './station/StationPanel.js';
import { CompressorDialogs, type OpenDialog } from './CompressorDialogs.js';
import { StoodBanner } from './StoodBanner.js';
import { CompressorHead } from './CompressorHead.js';
import { CompressorTabs } from './CompressorTabs.js';

/** One machine: what is due, station by station, when it was seen to, and what it is. */
export function CompressorPage() {
  const { compressorId = '' } = useParams();
  const unit = useCompressor(compressorId);
  const standing = useStanding(compressorId);
  const facts = useCompressorFacts(compressorId);
  const plan = usePlan(compressorId);
  const sites = useSites();
  const measurements = useMeasurements(compressorId);
  const vessels = useVessels(compressorId);
  // What stands against using it stands there from the first moment on, and nothing moves when it comes.
  const isStopComing = [useStops(), useOpenWork(), useFollowUpsOf(compressorId)].some(
    (query) => query.isLoading,
  );
  const all = [unit, standing, facts, plan, sites, measurements, vessels];
  const failed = all.find((query) => query.isError);
  if (failed) {
    return (
      <Frame>
        <ErrorState error={failed.error} onRetry={() => all.forEach((query) => void query.refetch())} />
      </Frame>
    );
  }
  const isHere = unit.data && standing.data && facts.data && plan.data && sites.data;
  if (!isHere || !measurements.data || !vessels.data || isStopComing)
    return (
      <Frame>
        <LoadingSkeleton lines={10} />
      </Frame>
    );
  return (
    <CompressorFolder
      key={compressorId}
      unit={unit.data}
      standing={standing.data}
      facts={facts.data}
      plan={plan.data}
      site={sites.data.find((one) => one.id === unit.data.siteId)}
      measurements={measurements.data}
      vessels={vessels.data}
    />
  );
}

function Frame({ children }: { readonly children: React.ReactNode }) {
  return <Box sx={{ px: { xs: 2, md: 3.5 } }}>{children}</Box>;
}

interface CompressorPageProps {
  readonly unit: CompressorView;
  readonly standing: StandingView;
  readonly facts: CompressorFacts;
  readonly plan: PlanView;
  readonly site: SiteView | undefined;
  readonly measurements: readonly MeasurementView[];
  readonly vessels: readonly VesselView[];
}

/** What an address asks to have opened at once. */
function dialogAsked(what: string | null): OpenDialog | null {
  return what === 'estimate' || what === 'read' ? { dialog: what } : null;
}

function CompressorFolder({ unit, standing, facts, plan, site, measurements, vessels }: CompressorPageProps) {
  const navigate = useNavigate();
  const [search, put] = useAddress();
  const [open, setOpen] = useState<OpenDialog | null>(() => dialogAsked(search.get('do')));
  const [isPlanning, setPlanning] = useState(false);
  const mode = usePreferences((preferences) => preferences.rulerIn);
  const isWide = useMediaQuery((theme: Theme) => theme.breakpoints.up('md'));
  const timeZone = site?.timeZone ?? 'UTC';
  const taskNames = useMemo(() => new Map(plan.tasks.map((task) => [task.code, task.name])), [plan]);
  const { machine, stations, asked, shown } = useStations(
    { unit, standing, measurements },
    search.get('station'),
  );
  const neighbours = useNeighbours(unit.id);
  const readOrEstimate = () => setOpen({ dialog: unit.hasHourMeter === false ? 'estimate' : 'read' });
  useKeys({
    n: readOrEstimate,
    m: () => setOpen({ dialog: 'measure' }),
    '[': neighbours.previous,
    ']': neighbours.next,
  });
  const close = () => {
    setOpen(null);
    if (search.has('do')) put({ do: null });
  };
  const record = (tasks: readonly string[]) => setOpen({ dialog: 'service', tasks });
  // On a phone a tap asks first: why, putting off and recording stand together there.
  const show = ({ vessel, station, code }: TaskStandingView) =>
    vessel ? put({ station }) : isWide ? record([code]) : setOpen({ dialog: 'why', task: code });
  const panel = (station: StationFacts) => (
    <StationPanel
      hasHeading={isWide}
      unit={unit}
      station={station}
      pathLength={machine.path.length}
      plan={plan}
      services={facts.services}
      vessels={vesselsAt(station, stations, vessels)}
      taskNames={taskNames}
      now={Date.parse(standing.at)}
      timeZone={timeZone}
      meter={standing.meter}
      onRecord={record}
      onWhy={(task) => setOpen({ dialog: 'why', task: task.code })}
      onMeasure={(check) => setOpen({ dialog: 'measure', check })}
      onCheck={(check) => put({ tab: 'checks', check })}
      onAddVessel={() => setOpen({ dialog: 'vessel' })}
      onExamine={(vessel, examination) => setOpen({ dialog: 'examine', vessel, examination })}
    />
  );
  const tabs = (
    <CompressorTabs
      unit={unit}
      standing={standing}
      facts={facts}
      plan={plan}
      timeZone={timeZone}
      onChoose={show}
      onOpen={(dialog) => setOpen({ dialog })}
      onMeasure={(check, corrects) => setOpen({ dialog: 'measure', check, corrects })}
      onCorrect={(readingId) =>
        setOpen({ dialog: 'read', corrects: facts.readings.find(({ id }) => id === readingId) })
      }
    />
  );
  return (
    <WithSide side={isWide ? <Box sx={{ px: 2.75, py: 2 }}>{panel(shown)}</Box> : null}>
      <Box sx={{ px: { xs: 2, md: 3.5 }, pt: 2, pb: { xs: 2, md: 3 }, minWidth: 0 }}>
        <CompressorHead unit={unit} site={site} standing={standing} timeZone={timeZone}>
          <Doings
            hasMeter={unit.hasHourMeter !== false}
            isRetired={standing.retired}
            onHours={readOrEstimate}
            onMeasure={() => setOpen({ dialog: 'measure' })}
            onService={() => record([])}
            onVisit={() => setPlanning(true)}
            fillAt={unit.family === 'high-pressure' ? `/units/${unit.id}/fill` : null}
          />
        </CompressorHead>
        <Banners unit={unit} standing={standing} timeZone={timeZone} />
        <HourRuler
          standing={standing}
          services={facts.services}
          taskNames={taskNames}
          mode={mode}
          timeZone={timeZone}
          onChoose={show}
        />
        <PathAndTabs
          isWide={isWide}
          path={{ family: unit.family, machine, onChoose: (station) => put({ station }) }}
          shown={shown}
          asked={asked}
          panel={panel}
        >
          {tabs}
        </PathAndTabs>
      </Box>
      {isPlanning && (
        <PlanVisitDialog siteId={unit.siteId} compressorId={unit.id} onClose={() => setPlanning(false)} />
      )}
      {open && (
        <CompressorDialogs
          open={open}
          unit={unit}
          site={site}
          facts={facts}
          standing={standing}
          plan={plan}
          timeZone={timeZone}
          onOpen={setOpen}
          onClose={close}
          onChangePlan={(task) => void navigate(`/units/${unit.id}/plan?task=${task}`)}
        />
      )}
    </WithSide>
  );
}

/** The stations of the machine with what is known of each, the one asked for, and the one that is shown. */
function useStations(
  { unit, standing, measurements }: Pick<CompressorPageProps, 'unit' | 'standing' | 'measurements'>,
  code: string | null,
) {
  const units = usePreferences((preferences) => preferences.units);
  const machine = useMemo(
    () => machineFacts(unit, standing, measurements, units),
    [unit, standing, measurements, units],
  );
  const stations = [...machine.path, ...machine.beside];
  const asked = stations.find((one) => one.code === code);
  const shown = asked ?? stations.find((one) => one.code === stationToShow(standing, machine))!;
  return { machine, stations, asked, shown };
}

interface PathAndTabsProps {
  readonly isWide: boolean;
  readonly path: Omit<React.ComponentProps<typeof AirWalk>, 'chosen' | 'children'>;
  readonly shown: StationFacts;
  /** The station that somebody asked for. */
  readonly asked: StationFacts | undefined;
  readonly panel: (station: StationFacts) => React.ReactNode;
  readonly children: React.ReactNode;
}

/** The way of the air above what is on record; on a phone below it, station by station. */
function PathAndTabs({ isWide, path, shown, asked, panel, children }: PathAndTabsProps) {
  if (isWide) {
    return (
      <>
        <AirPath {...path} chosen={shown.code} />
        {children}
      </>
    );
  }
  return (
    <>
      {children}
      <AirWalk {...path} chosen={asked?.code ?? null}>
        {asked && panel(asked)}
      </AirWalk>
    </>
  );
}

/** What the address says of the page, and changing it without a step back. */
function useAddress() {
  const [search, setSearch] = useSearchParams();
  const put = (changes: Readonly<Record<string, string | null>>) =>
    setSearch(
      (before) => {
        const next = new URLSearchParams(before);
        for (const [name, value] of Object.entries(changes)) {
          if (value === null) next.delete(name);
          else next.set(name, value);
        }
        return next;
      },
      { replace: true },
    );
  return [search, put] as const;
}

interface DoingsProps {
  readonly hasMeter: boolean;
  readonly isRetired: boolean;
  readonly onHours: () => void;
  readonly onMeasure: () => void;
  readonly onService: () => void;
  readonly onVisit: () => void;
  /** Where cylinders are filled from it; null where none are. */
  readonly fillAt: string | null;
}

/** What is done with the machine. */
function Doings({ hasMeter, isRetired, onHours, onMeasure, onService, onVisit, fillAt }: DoingsProps) {
  const maySign = useMay('sign');
  return (
    <>
      <Button variant="outlined" onClick={onHours}>
        {hasMeter ? 'Read hours' : 'Estimate hours'}
      </Button>
      <Button variant="outlined" onClick={onMeasure}>
        Measure
      </Button>
      {maySign && (
        <Button variant="outlined" onClick={onService} disabled={isRetired}>
          Record service
        </Button>
      )}
      {fillAt !== null && !isRetired && (
        <Button component={Link} to={fillAt} variant="outlined">
          Fill
        </Button>
      )}
      <Button variant="contained" onClick={onVisit} disabled={isRetired}>
        Visit
      </Button>
    </>
  );
}

/** Where vessels belong on a machine: a receiver at its station, what is filled at the hose. */
function vesselsAt(
  { code }: StationFacts,
  stations: readonly StationFacts[],
  vessels: readonly VesselView[],
): readonly VesselView[] | null {
  const places = stations.filter((one) => one.code === 'receiver' || one.code === 'fill');
  if (!places.some((one) => one.code === code)) return null;
  if (places.length === 1) return vessels;
  return vessels.filter(({ kind }) => (kind === 'receiver') === (code === 'receiver'));
}

/** The units before and after this one, in the order of urgency. */
function useNeighbours(compressorId: string) {
  const navigate = useNavigate();
  const { units: fleet } = useFleet();
  const go = (step: number) => {
    const index = fleet.findIndex((unit) => unit.compressorId === compressorId);
    const next = fleet[(index + step + fleet.length) % fleet.length];
    if (index >= 0 && next) void navigate(`/units/${next.compressorId}`);
  };
  return { previous: () => go(-1), next: () => go(1) };
}

interface BannersProps {
  readonly unit: CompressorView;
  readonly standing: StandingView;
  readonly timeZone: string;
}

/** What has to be known, or asked, before anything else about a unit. */
function Banners({ unit, standing, timeZone }: BannersProps) {
  return (
    <>
      <StopBanner compressorId={unit.id} timeZone={timeZone} />
      <FollowUpBanner compressorId={unit.id} />
      <StoodBanner unit={unit} standing={standing} timeZone={timeZone} />
      <MeterQuestion standing={standing} />
    </>
  );
}
