import { Box, Button, Stack, Typography } from '@mui/material';
import type {
  CompressorView,
  MeasurementView,
  PlanView,
  ReadingView,
  SiteView,
  StandingView,
  TaskStandingView,
} from '@entretien/contracts';
import type { CheckDefinition } from '@entretien/core/checks';
import { describeMachine } from '@entretien/core/machine';
import { formatFigure, formatQuantity, unitByCode, type QuantityKind } from '@entretien/core/quantities';
import { useState } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { useKeys } from '../../app/keys.js';
import { usePreferences } from '../../app/preferences.js';
import {
  useFleet,
  usePlan,
  useSites,
  useStanding,
  useUnit,
  useUnitFacts,
  type UnitFacts,
} from '../../data/queries.js';
import { Figure } from '../../parts/Figure.js';
import { HourRuler } from '../../parts/ruler/HourRuler.js';
import { Failed, Waiting } from '../../parts/States.js';
import { sayAgo, sayDate } from '../../parts/say-due.js';
import { WithSide } from '../../parts/WithSide.js';
import { MeasureDialog } from './checks/MeasureDialog.js';
import { EditPlateDialog } from './EditPlateDialog.js';
import { EstimateHoursDialog } from './EstimateHoursDialog.js';
import { MoveDialog } from './MoveDialog.js';
import { ReadHoursDialog } from './ReadHoursDialog.js';
import { RecordServiceDialog } from './RecordServiceDialog.js';
import { StandingList } from './StandingList.js';
import { UnitSide } from './UnitSide.js';

/** One machine: what is due, when it was seen to, and what it is. */
export function Unit() {
  const { unitId = '' } = useParams();
  const unit = useUnit(unitId);
  const standing = useStanding(unitId);
  const facts = useUnitFacts(unitId);
  const plan = usePlan(unitId);
  const sites = useSites();
  const all = [unit, standing, facts, plan, sites];
  const failed = all.find((query) => query.isError);
  if (failed) {
    return (
      <Frame>
        <Failed error={failed.error} onRetry={() => all.forEach((query) => void query.refetch())} />
      </Frame>
    );
  }
  if (!unit.data || !standing.data || !facts.data || !plan.data || !sites.data)
    return (
      <Frame>
        <Waiting lines={10} />
      </Frame>
    );
  const site = sites.data.find((one) => one.id === unit.data.siteId);
  return (
    <UnitPage
      key={unitId}
      unit={unit.data}
      standing={standing.data}
      facts={facts.data}
      plan={plan.data}
      site={site}
    />
  );
}

function Frame({ children }: { readonly children: React.ReactNode }) {
  return <Box sx={{ px: { xs: 2, md: 3.5 } }}>{children}</Box>;
}

interface UnitPageProps {
  readonly unit: CompressorView;
  readonly standing: StandingView;
  readonly facts: UnitFacts;
  readonly plan: PlanView;
  readonly site: SiteView | undefined;
}

type Open =
  | { readonly dialog: 'plate' | 'move' | 'estimate' }
  | { readonly dialog: 'read'; readonly corrects?: ReadingView | undefined }
  | { readonly dialog: 'service'; readonly tasks: readonly string[] }
  | {
      readonly dialog: 'measure';
      readonly check?: CheckDefinition | undefined;
      readonly corrects?: MeasurementView | undefined;
    };

function UnitPage({ unit, standing, facts, plan, site }: UnitPageProps) {
  const [search, setSearch] = useSearchParams();
  const [open, setOpen] = useState<Open | null>(() =>
    search.get('do') === 'estimate' ? { dialog: 'estimate' } : null,
  );
  const mode = usePreferences((preferences) => preferences.rulerIn);
  const timeZone = site?.timeZone ?? 'UTC';
  const taskNames = new Map(plan.tasks.map((task) => [task.code, task.name]));
  const neighbours = useNeighbours(unit.id);
  useKeys({
    n: () => setOpen({ dialog: unit.hasHourMeter === false ? 'estimate' : 'read' }),
    m: () => setOpen({ dialog: 'measure' }),
    '[': neighbours.previous,
    ']': neighbours.next,
  });
  const close = () => {
    setOpen(null);
    if (search.has('do')) setSearch({}, { replace: true });
  };
  const choose = (task: TaskStandingView) => setOpen({ dialog: 'service', tasks: [task.code] });
  const shared = { unitId: unit.id, tag: unit.tag, facts, standing, timeZone, onClose: close };
  return (
    <WithSide
      side={
        <UnitSide
          unit={unit}
          standing={standing}
          facts={facts}
          plan={plan}
          taskNames={taskNames}
          timeZone={timeZone}
          onOpen={(dialog) => setOpen({ dialog })}
          onMeasure={(check, corrects) => setOpen({ dialog: 'measure', check, corrects })}
          onCorrect={(readingId) =>
            setOpen({ dialog: 'read', corrects: facts.readings.find(({ id }) => id === readingId) })
          }
        />
      }
    >
      <Box sx={{ px: { xs: 2, md: 3.5 }, pt: 2, pb: { xs: 2, md: 3 }, minWidth: 0 }}>
        <Head unit={unit} site={site} standing={standing} timeZone={timeZone}>
          {unit.hasHourMeter === false ? (
            <Button variant="outlined" onClick={() => setOpen({ dialog: 'estimate' })}>
              Estimate hours
            </Button>
          ) : (
            <Button variant="outlined" onClick={() => setOpen({ dialog: 'read' })}>
              Read hours
            </Button>
          )}
          <Button variant="outlined" onClick={() => setOpen({ dialog: 'measure' })}>
            Measure
          </Button>
          <Button
            variant="contained"
            onClick={() => setOpen({ dialog: 'service', tasks: [] })}
            disabled={standing.retired}
          >
            Record service
          </Button>
        </Head>
        <HourRuler
          standing={standing}
          services={facts.services}
          taskNames={taskNames}
          mode={mode}
          timeZone={timeZone}
          onChoose={choose}
        />
        <Typography variant="h2" sx={{ position: 'absolute', mt: -3.25 }}>
          What is due
        </Typography>
        <StandingList unit={unit} standing={standing} timeZone={timeZone} onChoose={choose} />
      </Box>
      {open?.dialog === 'read' && <ReadHoursDialog {...shared} corrects={open.corrects} />}
      {open?.dialog === 'estimate' && <EstimateHoursDialog {...shared} unit={unit} />}
      {open?.dialog === 'service' && <RecordServiceDialog {...shared} plan={plan} chosen={open.tasks} />}
      {open?.dialog === 'measure' && (
        <MeasureDialog
          unit={unit}
          site={site}
          facts={facts}
          timeZone={timeZone}
          check={open.check}
          corrects={open.corrects}
          onClose={close}
        />
      )}
      {open?.dialog === 'plate' && <EditPlateDialog unit={unit} timeZone={timeZone} onClose={close} />}
      {open?.dialog === 'move' && <MoveDialog unit={unit} timeZone={timeZone} onClose={close} />}
    </WithSide>
  );
}

/** The units before and after this one, in the order of urgency. */
function useNeighbours(unitId: string) {
  const navigate = useNavigate();
  const { units: fleet } = useFleet();
  const go = (step: number) => {
    const index = fleet.findIndex((unit) => unit.compressorId === unitId);
    const next = fleet[(index + step + fleet.length) % fleet.length];
    if (index >= 0 && next) void navigate(`/units/${next.compressorId}`);
  };
  return { previous: () => go(-1), next: () => go(1) };
}

interface HeadProps {
  readonly unit: CompressorView;
  readonly site: SiteView | undefined;
  readonly standing: StandingView;
  readonly timeZone: string;
  readonly children: React.ReactNode;
}

function Head({ unit, site, standing, timeZone, children }: HeadProps) {
  return (
    <Stack
      direction={{ xs: 'column', sm: 'row' }}
      sx={{ justifyContent: 'space-between', alignItems: { sm: 'start' }, gap: 1.5, mb: 1 }}
    >
      <Box sx={{ minWidth: 0 }}>
        <Typography variant="h1">
          {unit.tag}{' '}
          <Box component="span" sx={{ fontWeight: 450, color: 'text.secondary' }}>
            {site?.name}
          </Box>
        </Typography>
        <Stack
          direction="row"
          component="ul"
          sx={{
            flexWrap: 'wrap',
            columnGap: 2.5,
            rowGap: 0.25,
            listStyle: 'none',
            p: 0,
            m: 0,
            mt: 0.5,
            typography: 'body2',
            color: 'text.secondary',
          }}
        >
          {[unit.name, describeMachine(unit)].filter(Boolean).map((words) => (
            <Box component="li" key={words}>
              {words}
            </Box>
          ))}
          <Measured kind="pressure" value={unit.workingPressureBar} />
          <Measured kind="flow" value={unit.fadLpm} />
          <Box component="li">{sayUse(standing)}</Box>
          <Box component="li">
            {standing.lastReadingAt === null
              ? unit.hasHourMeter === false
                ? 'no hour meter'
                : 'never read'
              : `read ${sayAgo(Date.parse(standing.lastReadingAt), Date.parse(standing.at), timeZone)}`}
          </Box>
          {unit.retiredOn !== undefined && (
            <Box component="li" sx={{ color: 'notebook.oxide' }}>
              retired {sayDate(unit.retiredOn, Date.parse(standing.at), timeZone)}
            </Box>
          )}
        </Stack>
      </Box>
      <Stack
        direction="row"
        spacing={1}
        sx={{ flex: 'none', '& .MuiButton-root': { flex: { xs: 1, sm: 'none' } } }}
      >
        {children}
      </Stack>
    </Stack>
  );
}

function sayUse({ hoursPerDay, runHoursBasis }: StandingView): React.ReactNode {
  if (hoursPerDay === null) return 'use not known yet';
  if (hoursPerDay < 0.05) return 'standing still';
  return (
    <>
      <Figure value={formatFigure(hoursPerDay, { maxDecimals: 1 })} unit="h" /> a day
      {runHoursBasis === 'declared' ? ', declared' : ''}
    </>
  );
}

function Measured({ kind, value }: { readonly kind: QuantityKind; readonly value: number | undefined }) {
  const chosen = usePreferences((preferences) => preferences.units[kind]);
  if (value === undefined) return null;
  const shown = formatQuantity(value, kind, unitByCode(kind, chosen));
  return (
    <li>
      <Figure value={shown.figure} unit={shown.unit} />
    </li>
  );
}
