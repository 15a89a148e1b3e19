import { Box, Button, Stack, Typography } from '@mui/material';
import type { PartView } from '@entretien/contracts';
import { kitAgainstVan, needsReason } from '@entretien/core/parts';
import { prepare } from '@entretien/core/visit';
import { useState } from 'react';
import { useParts } from '../../data/queries.js';
import { Figure } from '../../components/Figure.js';
import { OtherPartDialog } from './OtherPartDialog.js';
import { plannedTasks } from './phases.js';
import type { CompressorAtWork } from './use-visit.js';

/** The kit of the visit: each line used with one touch, and taken back with another; and whatever else was used. */
export function PartsUsed({ atWork }: { readonly atWork: CompressorAtWork }) {
  const { data: parts = [] } = useParts();
  const [other, setOther] = useState<{ readonly inPlaceOf?: PartView | undefined } | null>(null);
  const { compressorId } = atWork.view;
  const { kit } = prepare(plannedTasks(atWork), atWork.unit.plate);
  const lines = kitAgainstVan(kit, parts, compressorId).map(({ part, count, answeredBy }) => ({
    key: answeredBy?.id ?? part,
    name: answeredBy?.name ?? part,
    count,
    part: parts.find(({ id }) => id === answeredBy?.id),
  }));
  const inKit = new Set(lines.map(({ key }) => key));
  const others = atWork.progress.parts
    .filter(({ part, name }) => !inKit.has(part ?? name))
    .map(({ part, name, count }) => ({
      key: part ?? name,
      name,
      count,
      part: parts.find(({ id }) => id === part),
    }));
  return (
    <Box component="section" aria-label="Parts" sx={{ py: 1.5 }}>
      <Typography variant="h3" component="h2" sx={{ color: 'text.secondary', mb: 0.5 }}>
        Parts
      </Typography>
      {[...lines, ...others].map((line) => (
        <PartLine
          key={line.key}
          atWork={atWork}
          line={line}
          onReason={() => setOther({ inPlaceOf: line.part })}
        />
      ))}
      <Button onClick={() => setOther({})} sx={{ minHeight: 44, px: 0 }}>
        Another part
      </Button>
      {other && (
        <OtherPartDialog
          atWork={atWork}
          parts={parts}
          inPlaceOf={other.inPlaceOf}
          onClose={() => setOther(null)}
        />
      )}
    </Box>
  );
}

interface PartLineProps {
  readonly atWork: CompressorAtWork;
  readonly line: {
    readonly key: string;
    readonly name: string;
    readonly count: number;
    readonly part: PartView | undefined;
  };
  /** Used on this unit it wants a reason. */
  readonly onReason: () => void;
}

function PartLine({ atWork, line: { key, name, count, part }, onReason }: PartLineProps) {
  const used = atWork.progress.parts.find((one) => (one.part ?? one.name) === key);
  const held = used?.count ?? 0;
  const isShort = held > 0 && part !== undefined && part.inVan < 0;
  const wantsReason =
    held === 0 && part !== undefined && needsReason(part, atWork.unit.plate, atWork.view.compressorId);
  const record = (more: number) =>
    void atWork.record({
      kind: 'part',
      name,
      count: more,
      ...(part ? { part: part.id } : {}),
      ...(used?.reason === undefined ? {} : { reason: used.reason }),
    });
  return (
    <Stack direction="row" sx={{ alignItems: 'center', gap: 1, borderTop: 1, borderColor: 'divider' }}>
      <Figure value={String(held > 0 ? held : count)} unit="×" sx={{ minWidth: 34 }} />
      <Box sx={{ flex: 1 }}>
        <Typography sx={{ fontWeight: held > 0 ? 650 : 450 }}>{name}</Typography>
        {isShort && (
          <Typography variant="body2" sx={{ color: 'brass' }}>
            More than the stock shows.
          </Typography>
        )}
        {used?.reason !== undefined && (
          <Typography variant="body2" sx={{ color: 'text.secondary' }}>
            {used.reason}
          </Typography>
        )}
      </Box>
      <Button
        onClick={() => (wantsReason ? onReason() : record(held > 0 ? -held : count))}
        variant={held > 0 ? 'text' : 'outlined'}
        aria-label={held > 0 ? `Undo: ${name}` : `Used: ${name}`}
        sx={{ minHeight: 44, my: 0.5 }}
      >
        {held > 0 ? 'Undo' : 'Used'}
      </Button>
    </Stack>
  );
}
