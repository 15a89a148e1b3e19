import { Box, Tab, Tabs } from '@mui/material';
import type { CompressorView, PlanView, StandingView } from '@entretien/contracts';
import { useSearchParams } from 'react-router';
import type { UnitFacts } from '../../data/queries.js';
import { ChecksPanel, type ChecksPanelProps } from './checks/ChecksPanel.js';
import { HoursPanel } from './HoursPanel.js';
import { Logbook } from './Logbook.js';
import { PlanPanel } from './PlanPanel.js';
import { PlatePanel } from './PlatePanel.js';

const tabs = ['logbook', 'checks', 'hours', 'plate', 'plan'] as const;

interface SideProps {
  readonly unit: CompressorView;
  readonly standing: StandingView;
  readonly facts: UnitFacts;
  readonly plan: PlanView;
  readonly taskNames: ReadonlyMap<string, string>;
  readonly timeZone: string;
  readonly onOpen: (dialog: 'plate' | 'move') => void;
  readonly onCorrect: (readingId: string) => void;
  readonly onMeasure: ChecksPanelProps['onMeasure'];
}

/** Beside the machine: its logbook, what was measured, its hours, its plate and its plan, each with an address. */
export function UnitSide({
  unit,
  standing,
  facts,
  plan,
  taskNames,
  timeZone,
  onOpen,
  onCorrect,
  onMeasure,
}: SideProps) {
  const [search, setSearch] = useSearchParams();
  const tab = tabs.find((one) => one === search.get('tab')) ?? 'logbook';
  return (
    <>
      <Tabs
        value={tab}
        onChange={(_event, value: string) =>
          setSearch(value === 'logbook' ? {} : { tab: value }, { replace: true })
        }
        aria-label="About this unit"
        sx={{
          px: { xs: 1, md: 1.5 },
          borderBottom: 1,
          borderColor: 'divider',
          minHeight: 44,
          '& .MuiTab-root': { minHeight: 44, minWidth: 0, px: 1.1, textTransform: 'none', fontWeight: 600 },
        }}
      >
        <Tab value="logbook" label="Logbook" id="tab-logbook" aria-controls="panel" />
        <Tab value="checks" label="Checks" id="tab-checks" aria-controls="panel" />
        <Tab value="hours" label="Hours" id="tab-hours" aria-controls="panel" />
        <Tab value="plate" label="Plate" id="tab-plate" aria-controls="panel" />
        <Tab value="plan" label="Plan" id="tab-plan" aria-controls="panel" />
      </Tabs>
      <Box
        role="tabpanel"
        id="panel"
        aria-labelledby={`tab-${tab}`}
        sx={{ px: { xs: 2, md: 2.75 }, py: 1.5 }}
      >
        {tab === 'logbook' && (
          <Logbook
            unitId={unit.id}
            onCorrect={onCorrect}
            facts={facts}
            taskNames={taskNames}
            timeZone={timeZone}
          />
        )}
        {tab === 'checks' && (
          <ChecksPanel unit={unit} services={facts.services} timeZone={timeZone} onMeasure={onMeasure} />
        )}
        {tab === 'hours' && <HoursPanel unitId={unit.id} standing={standing} />}
        {tab === 'plate' && (
          <PlatePanel
            unit={unit}
            timeZone={timeZone}
            onEdit={() => onOpen('plate')}
            onMove={() => onOpen('move')}
          />
        )}
        {tab === 'plan' && <PlanPanel plan={plan} unit={unit} />}
      </Box>
    </>
  );
}
