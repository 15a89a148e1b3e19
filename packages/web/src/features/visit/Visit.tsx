import { Alert, Box, Typography, useMediaQuery, type Theme } from '@mui/material';
import type { VisitView } from '@entretien/contracts';
import { useState } from 'react';
import { useParams, useSearchParams } from 'react-router';
import { useOutbox } from '../../data/outbox/outbox.js';
import { ErrorState, LoadingSkeleton } from '../../components/States.js';
import { WithSide } from '../../components/WithSide.js';
import { BeforePhase } from './BeforePhase.js';
import { IsolatePhase } from './IsolatePhase.js';
import { nextPhase, phases, type Phase } from './phases.js';
import { PreparePhase } from './PreparePhase.js';
import { ProvePhase } from './ProvePhase.js';
import { SignPhase } from './SignPhase.js';
import { VisitSummary } from './VisitSummary.js';
import { useCompressorAtWork, useVisit } from './use-visit.js';
import { VisitHead } from './VisitHead.js';
import { WorkPhase } from './WorkPhase.js';

/** The guided visit: one unit at a time, from preparing to the tag on the machine. */
export function Visit() {
  const { visitId = '' } = useParams();
  const visit = useVisit(visitId);
  if (visit.isError) {
    return (
      <Box sx={{ px: { xs: 2, md: 3.5 } }}>
        <ErrorState error={visit.error} onRetry={() => void visit.refetch()} />
      </Box>
    );
  }
  if (!visit.data) {
    return (
      <Box sx={{ px: { xs: 2, md: 3.5 } }}>
        <LoadingSkeleton lines={8} />
      </Box>
    );
  }
  return <ChosenCompressor visit={visit.data} />;
}

function ChosenCompressor({ visit }: { readonly visit: VisitView }) {
  const [search] = useSearchParams();
  const view = visit.units.find(({ compressorId }) => compressorId === search.get('unit')) ?? visit.units[0]!;
  return <CompressorOfVisit key={view.compressorId} visit={visit} view={view} />;
}

const views: Readonly<Record<Phase, typeof PreparePhase>> = {
  prepare: PreparePhase,
  before: BeforePhase,
  isolate: IsolatePhase,
  work: WorkPhase,
  prove: ProvePhase,
  sign: SignPhase,
};

function CompressorOfVisit({
  visit,
  view,
}: {
  readonly visit: VisitView;
  readonly view: VisitView['units'][number];
}) {
  const atWork = useCompressorAtWork(visit, view);
  const [search, setSearch] = useSearchParams();
  const { isConnected } = useOutbox();
  const asked = phases.find((phase) => phase === search.get('at'));
  // Where one goes on is found once: a step that is told must not turn the page.
  const [first] = useState<Phase>(() => (atWork.steps.length === 0 ? 'prepare' : nextPhase(atWork)));
  const phase = asked ?? first;
  const go = (next: Phase, unit = view.compressorId) => {
    setSearch({ unit, at: next });
    window.scrollTo({ top: 0 });
  };
  const isWide = useMediaQuery((theme: Theme) => theme.breakpoints.up('md'));
  const Shown = views[phase];
  return (
    <WithSide width={340} side={isWide ? <VisitSummary atWork={atWork} phase={phase} onGo={go} /> : null}>
      <Box sx={{ display: 'flex', flexDirection: 'column', flex: 1, minHeight: '100%' }}>
        <VisitHead atWork={atWork} phase={phase} onGo={go} />
        <Box sx={{ px: { xs: 2, md: 3.5 }, pt: 1.5, flex: 1, display: 'flex', flexDirection: 'column' }}>
          {!isConnected && (
            <Alert severity="info" variant="outlined" sx={{ mb: 1.5 }}>
              No connection. Work on: what you record is kept on this device and sent when there is one again.
            </Alert>
          )}
          {atWork.refused.map(({ id, text, problem }) => (
            <Alert key={id} severity="error" variant="outlined" sx={{ mb: 1 }}>
              <Typography component="span" sx={{ fontWeight: 600 }}>
                Not saved: {text}.
              </Typography>{' '}
              {problem!.detail ?? problem!.title} It waits in the outbox.
            </Alert>
          ))}
          <Shown atWork={atWork} onGo={go} />
        </Box>
      </Box>
    </WithSide>
  );
}
