import AddIcon from '@mui/icons-material/Add';
import { Box, Button, Stack, Typography } from '@mui/material';
import { kitAgainstVan, type KitLine } from '@entretien/core/parts';
import { kitItemText, type IsolationState } from '@entretien/core/plan';
import { prepare } from '@entretien/core/visit';
import { stationName, type DataPlate } from '@entretien/core/machine';
import { useState } from 'react';
import { useParts } from '../../data/queries.js';
import { Caution } from '../../components/Caution.js';
import { DropMark } from '../../components/DropMark.js';
import { DueFigure } from '../../components/DueFigure.js';
import { Figure } from '../../components/Figure.js';
import { describeDue } from '../../components/describe-due.js';
import { useFormatQuantity } from '../../components/use-format-quantity.js';
import { ManualsAtHand } from '../../components/papers/ManualsAtHand.js';
import { JoinCompressor } from './JoinCompressor.js';
import { plannedTasks } from './phases.js';
import { PhaseFooter, type PhaseProps } from './PhaseFooter.js';
import { ReadMeter } from './ReadMeter.js';
import { TakeOut, TakePackage } from './TakePackage.js';

export const stateTitles: Readonly<Record<IsolationState, string>> = {
  running: 'While it runs',
  stopped: 'Stopped and locked',
  'stopped-under-pressure': 'Stopped, under pressure',
  'isolated-and-vented': 'Isolated and vented',
};

/** What is to be done, in the order of doing, with what it takes. */
export function PreparePhase({ atWork, onGo }: PhaseProps) {
  const { view, unit, visit, progress } = atWork;
  const tasks = plannedTasks(atWork);
  const { work, kit, tools, minutes } = prepare(tasks, unit.plate);
  const { data: parts } = useParts();
  const lines = kitAgainstVan(kit, parts ?? [], view.compressorId, unit.plate);
  const cautions = [...new Set(tasks.flatMap(({ caution }) => (caution === undefined ? [] : [caution])))];
  const states = [...new Set(work.map(({ isolation }) => isolation))];
  return (
    <>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: '1fr', md: 'minmax(0, 5fr) minmax(0, 4fr)' },
          columnGap: 4,
        }}
      >
        <Box>
          <ManualsAtHand compressorId={view.compressorId} isKept />
          {tasks.length === 0 && !progress.signed && <TakePackage atWork={atWork} onGo={onGo} />}
          {states.map((state) => (
            <Box key={state} component="section" aria-label={stateTitles[state]} sx={{ mb: 1.25 }}>
              <Typography variant="h3" component="h2" sx={{ color: 'text.secondary' }}>
                {stateTitles[state]}
              </Typography>
              {work
                .filter(({ isolation }) => isolation === state)
                .flatMap(({ tasks: here, station }) => here.map((task) => ({ task, station })))
                .map(({ task, station }) => {
                  const due = view.standing.tasks.find(({ code }) => code === task.code);
                  return (
                    <Stack
                      key={task.code}
                      direction="row"
                      sx={{ alignItems: 'center', gap: 1.25, py: 0.6, borderTop: 1, borderColor: 'divider' }}
                    >
                      {due ? (
                        <DropMark state={due.state} used={due.usedFraction} size={24} />
                      ) : (
                        <Box sx={{ width: 18 }} />
                      )}
                      <Box sx={{ flex: 1, minWidth: 0 }}>
                        <Typography sx={{ fontWeight: 600, lineHeight: 1.25 }}>{task.name}</Typography>
                        <Typography
                          variant="caption"
                          sx={{ color: 'text.secondary', display: 'block', lineHeight: 1.25 }}
                        >
                          {stationName(unit.plate, station)} · {task.minutes} min
                        </Typography>
                      </Box>
                      {due && (
                        <DueFigure
                          text={describeDue(due, atWork.now, visit.timeZone, view.standing.meter).short}
                          state={due.state}
                          size="0.84rem"
                        />
                      )}
                      {!progress.signed && <TakeOut atWork={atWork} task={task} />}
                    </Stack>
                  );
                })}
            </Box>
          ))}
          {tasks.length > 0 && !progress.signed && <TakePackage atWork={atWork} onGo={onGo} />}
          <Box>
            <AddTask atWork={atWork} />
          </Box>
          <JoinCompressor atWork={atWork} onJoined={(joined) => onGo('prepare', joined)} />
        </Box>
        <Box>
          <Typography variant="h3" component="h2" sx={{ color: 'text.secondary' }}>
            Take along
          </Typography>
          {lines.length === 0 && <Typography variant="body2">No parts.</Typography>}
          {lines.map((line) => (
            <KitRow key={line.part} line={line} plate={unit.plate} />
          ))}
          {tools.length > 0 && (
            <Typography variant="body2" sx={{ mt: 1 }}>
              Tools: {tools.join(', ')}.
            </Typography>
          )}
          <Box sx={{ mt: 1.5 }}>
            {cautions.slice(0, 3).map((text) => (
              <Caution key={text} text={text} />
            ))}
            {cautions.length > 0 && (
              <Typography variant="caption" sx={{ color: 'text.secondary' }}>
                The maker’s manual, local law and licensed trades come first.
              </Typography>
            )}
          </Box>
          {unit.plate.hasHourMeter !== false && progress.hours === null && <ReadMeter atWork={atWork} />}
        </Box>
      </Box>
      <PhaseFooter
        about={`${tasks.length} ${tasks.length === 1 ? 'task' : 'tasks'}, about ${minutes} min of work`}
      >
        <Button variant="contained" onClick={() => onGo('before')}>
          To the before readings
        </Button>
      </PhaseFooter>
    </>
  );
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

interface KitRowProps {
  readonly line: KitLine;
  readonly plate: DataPlate;
}

function KitRow({ line: { part, count, answeredBy, proposed, short }, plate }: KitRowProps) {
  const packed = kitItemText(part, plate, useFormatQuantity());
  const held =
    answeredBy === null
      ? 'not in the catalogue'
      : short > 0
        ? `${answeredBy.inVan} in the van`
        : 'in the van';
  return (
    <Stack
      direction="row"
      sx={{ alignItems: 'baseline', gap: 1.25, py: 0.5, borderTop: 1, borderColor: 'divider' }}
    >
      <Figure value={String(count)} unit="×" sx={{ minWidth: 34 }} />
      <Typography sx={{ flex: 1 }}>
        {answeredBy?.name ?? capital(packed)}
        {!answeredBy && proposed && (
          <Typography variant="body2" sx={{ color: 'text.secondary', lineHeight: 1.25 }}>
            Like {proposed.name}? {proposed.inVan} in the van.
          </Typography>
        )}
        {answeredBy && (
          <Typography
            component="span"
            variant="caption"
            sx={{ color: 'text.secondary', display: 'block', lineHeight: 1.25 }}
          >
            {packed}
          </Typography>
        )}
      </Typography>
      <Typography
        variant="body2"
        sx={{
          fontWeight: 600,
          color: short > 0 && answeredBy ? 'oxide' : short > 0 ? 'text.secondary' : 'slate',
        }}
      >
        {short > 0 && answeredBy ? `short: ${held}` : held}
      </Typography>
    </Stack>
  );
}

/** A task of the plan joins the visit. */
export function AddTask({ atWork }: Pick<PhaseProps, 'atWork'>) {
  const [isOpen, setOpen] = useState(false);
  const planned = new Set(atWork.progress.tasks.map(({ code }) => code));
  const others = atWork.unit.plan.filter(({ code }) => !planned.has(code));
  if (others.length === 0) return null;
  if (!isOpen) {
    return (
      <Button startIcon={<AddIcon />} onClick={() => setOpen(true)} sx={{ minHeight: 44, px: 0 }}>
        Add a task
      </Button>
    );
  }
  return (
    <Box component="section" aria-label="Add a task">
      {others.map(({ code, name }) => (
        <Button
          key={code}
          onClick={() => void atWork.record({ kind: 'plan', tasks: [code] }).then(() => setOpen(false))}
          fullWidth
          sx={{
            justifyContent: 'start',
            textAlign: 'left',
            minHeight: 44,
            borderTop: 1,
            borderColor: 'divider',
            borderRadius: 0,
            px: 0.5,
          }}
        >
          {name}
        </Button>
      ))}
    </Box>
  );
}
