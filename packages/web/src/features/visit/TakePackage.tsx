import AddIcon from '@mui/icons-material/Add';
import CloseIcon from '@mui/icons-material/Close';
import { Box, Button, IconButton, Stack, Typography } from '@mui/material';
import type { ServiceTask } from '@entretien/core/plan';
import { worthPlanning } from '@entretien/core/visit';
import { useState } from 'react';
import { FoundDialog } from './FoundDialog.js';
import type { PhaseProps } from './PhaseFooter.js';

/** What one came for: a whole service in one touch, what is nearing, a look alone, or a fault. */
export function TakePackage({ atWork, onGo }: PhaseProps) {
  const { packages, progress, unit, view } = atWork;
  const [hasFault, setFault] = useState(false);
  const [isOpen, setOpen] = useState(false);
  const planned = new Set(progress.tasks.map(({ code }) => code));
  const covered = new Set(unit.plan.flatMap(({ code, covers = [] }) => (planned.has(code) ? covers : [])));
  const isEmpty = planned.size === 0;
  const minutes = new Map(unit.plan.map((task) => [task.code, task.minutes]));
  const take = (tasks: readonly string[]) => {
    setOpen(false);
    void atWork.record({ kind: 'plan', tasks });
  };
  const known = (codes: readonly string[]) => codes.filter((code) => minutes.has(code));
  const nearing = known(worthPlanning(view.standing.tasks)).filter((code) => !planned.has(code));
  const offer = (tasks: readonly string[]) => {
    const lasts = tasks.reduce((sum, code) => sum + minutes.get(code)!, 0);
    return `${tasks.length} ${tasks.length === 1 ? 'task' : 'tasks'}, ${lasts} min`;
  };
  const open = packages
    .map((one) => ({
      one,
      missing: known(one.tasks).filter((code) => !planned.has(code) && !covered.has(code)),
    }))
    .filter(({ missing }) => missing.length > 0);
  if (open.length === 0 && !isEmpty) return null;
  if (!isEmpty && !isOpen) {
    return (
      <Button startIcon={<AddIcon />} onClick={() => setOpen(true)} sx={{ minHeight: 44, px: 0 }}>
        A whole service
      </Button>
    );
  }
  return (
    <Box component="section" aria-label="What you came for" sx={{ mb: 1.75 }}>
      <Typography variant="h3" component="h2" sx={{ color: 'text.secondary', mb: 0.75 }}>
        {isEmpty ? 'What did you come for?' : 'Take a whole service'}
      </Typography>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: 'repeat(auto-fill, minmax(min(100%, 186px), 1fr))',
          gap: 1,
        }}
      >
        {isEmpty && nearing.length > 0 && (
          <Offer title="What is due or nearing" about={offer(nearing)} onTake={() => take(nearing)} />
        )}
        {open.map(({ one, missing }) => (
          <Offer
            key={one.code}
            title={one.name}
            about={offer(missing)}
            why={one.because}
            onTake={() => take(missing)}
          />
        ))}
        {isEmpty && (
          <>
            <Offer title="Only a look" about="measure, note, photo" onTake={() => onGo('work')} />
            <Offer title="A fault" about="opens a repair" onTake={() => setFault(true)} />
          </>
        )}
      </Box>
      {hasFault && <FoundDialog atWork={atWork} onClose={() => setFault(false)} />}
    </Box>
  );
}

interface OfferProps {
  readonly title: string;
  readonly about: string;
  readonly why?: string | undefined;
  readonly onTake: () => void;
}

function Offer({ title, about, why, onTake }: OfferProps) {
  return (
    <Button
      variant="outlined"
      onClick={onTake}
      title={why}
      sx={{ justifyContent: 'start', textAlign: 'left', minHeight: 56, px: 1.5, py: 0.75 }}
    >
      <Stack>
        <span>{title}</span>
        <Typography component="span" variant="caption" sx={{ color: 'text.secondary', lineHeight: 1.25 }}>
          {about}
        </Typography>
      </Stack>
    </Button>
  );
}

/** A task leaves the visit again; once it is answered, its answer is taken back first. */
export function TakeOut({ atWork, task }: Pick<PhaseProps, 'atWork'> & { readonly task: ServiceTask }) {
  const answered = atWork.progress.tasks.find(({ code }) => code === task.code)?.outcome !== 'open';
  if (answered) return <Box sx={{ width: 44 }} />;
  return (
    <IconButton
      aria-label={`Not for this visit: ${task.name}`}
      onClick={() => void atWork.record({ kind: 'take-out', tasks: [task.code] })}
      sx={{ width: 44, height: 44 }}
    >
      <CloseIcon fontSize="small" />
    </IconButton>
  );
}
