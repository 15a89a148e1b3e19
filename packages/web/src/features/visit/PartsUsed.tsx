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
  const { plate } = atWork.unit;
  const lines: readonly UsedLine[] = kitAgainstVan(kit, parts, compressorId, plate).map(
    ({ part, count, answeredBy, proposed }) => ({
      key: answeredBy?.id ?? part,
      name: answeredBy?.name ?? part,
      count,
      part: parts.find(({ id }) => id === answeredBy?.id),
      proposed: parts.find(({ id }) => id === proposed?.id),
    }),
  );
  const inKit = new Set(lines.map(({ key }) => key));
  const others: readonly UsedLine[] = atWork.progress.parts
    .filter(({ part, name }) => !inKit.has(part ?? name))
    .map(({ part, name, count }) => ({
      key: part ?? name,
      name,
      count,
      part: parts.find(({ id }) => id === part),
    }));
  const used = new Set(atWork.progress.parts.map(({ part, name }) => part ?? name));
  // What wants a reason, or is only like what the kit asks for, is answered one by one.
  const unused = lines.filter(
    ({ key, part, proposed }) =>
      !used.has(key) && !proposed && !(part && needsReason(part, plate, compressorId)),
  );
  const recordAll = async () => {
    for (const { name, count, part } of unused)
      await atWork.record({ kind: 'part', name, count, ...(part ? { part: part.id } : {}) });
  };
  return (
    <Box component="section" aria-label="Parts" sx={{ py: 1.5 }}>
      <Typography variant="h3" component="h2" sx={{ color: 'text.secondary', mb: 0.5 }}>
        Parts
      </Typography>
      {unused.length > 1 && (
        <Button onClick={() => void recordAll()} variant="outlined" sx={{ minHeight: 44, mb: 0.5 }}>
          All used
        </Button>
      )}
      {[...lines, ...others].map((line) => (
        <PartLine
          key={line.key}
          atWork={atWork}
          line={line}
          onReason={() => setOther({ inPlaceOf: line.part })}
          onProposed={() => setOther({ inPlaceOf: line.proposed })}
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

interface UsedLine {
  readonly key: string;
  readonly name: string;
  readonly count: number;
  readonly part: PartView | undefined;
  /** One of the same kind, where none is named for the line. */
  readonly proposed?: PartView | undefined;
}

interface PartLineProps {
  readonly atWork: CompressorAtWork;
  readonly line: UsedLine;
  readonly onProposed: () => void;
  /** Used on this unit it wants a reason. */
  readonly onReason: () => void;
}

function PartLine({ atWork, line, onReason, onProposed }: PartLineProps) {
  const { key, name, count, part, proposed } = line;
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
        {held === 0 && proposed && (
          <Button onClick={onProposed} sx={{ minHeight: 44, px: 0 }}>
            Like {proposed.name}?
          </Button>
        )}
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
