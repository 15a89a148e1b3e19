import { Box, Tab, Tabs } from '@mui/material';
import type { CompressorView, PlanView, StandingView, TaskStandingView } from '@entretien/contracts';
import { useSearchParams } from 'react-router';
import type { CompressorFacts } from '../../data/queries.js';
import { ChecksPanel, type ChecksPanelProps } from './checks/ChecksPanel.js';
import { DevicesPanel } from './devices/DevicesPanel.js';
import { HoursPanel } from './HoursPanel.js';
import { TurnsLine } from './TurnsLine.js';
import { Logbook } from './Logbook.js';
import { PlanPanel } from './PlanPanel.js';
import { PlatePanel } from './PlatePanel.js';
import { RepairsPanel } from './RepairsPanel.js';
import { StandingList } from './StandingList.js';

const tabs = ['due', 'repairs', 'logbook', 'checks', 'hours', 'plate', 'plan'] as const;

interface TabsProps {
  readonly unit: CompressorView;
  readonly standing: StandingView;
  readonly facts: CompressorFacts;
  readonly plan: PlanView;
  readonly timeZone: string;
  /** A task was chosen, to be recorded. */
  readonly onChoose: (task: TaskStandingView) => void;
  readonly onOpen: (dialog: 'plate' | 'move' | 'starting-points') => void;
  readonly onCorrect: (readingId: string) => void;
  readonly onMeasure: ChecksPanelProps['onMeasure'];
}

/** Under the machine: what is due, its logbook, what was measured, its hours, its plate and its plan, each with an address. */
export function CompressorTabs({
  unit,
  standing,
  facts,
  plan,
  timeZone,
  onChoose,
  onOpen,
  onCorrect,
  onMeasure,
}: TabsProps) {
  const [search, setSearch] = useSearchParams();
  const tab = tabs.find((one) => one === search.get('tab')) ?? 'due';
  return (
    <>
      <Tabs
        value={tab}
        onChange={(_event, value: string) =>
          setSearch(
            (before) => {
              const station = before.get('station');
              return { ...(station ? { station } : {}), ...(value === 'due' ? {} : { tab: value }) };
            },
            { replace: true },
          )
        }
        variant="scrollable"
        scrollButtons={false}
        aria-label="About this unit"
        sx={{
          mt: 1,
          borderBottom: 1,
          borderColor: 'divider',
          minHeight: 44,
          '& .MuiTab-root': { minHeight: 44, minWidth: 0, px: 1.1, textTransform: 'none', fontWeight: 600 },
        }}
      >
        <Tab value="due" label="Due" id="tab-due" aria-controls="panel" />
        <Tab value="repairs" label="Repairs" id="tab-repairs" aria-controls="panel" />
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
        sx={{ py: 1.25, maxWidth: tab === 'due' ? undefined : 620 }}
      >
        {tab === 'repairs' && <RepairsPanel unit={unit} timeZone={timeZone} />}
        {tab === 'due' && (
          <StandingList
            unit={unit}
            standing={standing}
            timeZone={timeZone}
            onChoose={onChoose}
            onStartingPoints={() => onOpen('starting-points')}
          />
        )}
        {tab === 'logbook' && <Logbook compressorId={unit.id} onCorrect={onCorrect} />}
        {tab === 'checks' && (
          <ChecksPanel unit={unit} services={facts.services} timeZone={timeZone} onMeasure={onMeasure} />
        )}
        {tab === 'hours' && <TurnsLine unit={unit} />}
        {tab === 'hours' && <HoursPanel compressorId={unit.id} standing={standing} />}
        {tab === 'hours' && <DevicesPanel compressorId={unit.id} />}
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
