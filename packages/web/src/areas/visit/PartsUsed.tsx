import { Box, Button, Stack, Typography } from '@mui/material';
import { kitAgainstVan } from '@entretien/core/parts';
import { prepare } from '@entretien/core/visit';
import { useParts } from '../../data/queries.js';
import { Figure } from '../../parts/Figure.js';
import { plannedTasks } from './phases.js';
import type { UnitAtWork } from './use-visit.js';

/** The kit of the visit: each line used with one touch, and taken back with another. */
export function PartsUsed({ atWork }: { readonly atWork: UnitAtWork }) {
  const { data: parts } = useParts();
  const { kit } = prepare(plannedTasks(atWork), atWork.unit.plate);
  const lines = kitAgainstVan(kit, parts ?? [], atWork.view.compressorId);
  const used = (part: string | undefined, name: string) =>
    atWork.progress.parts.find((one) => (part === undefined ? one.name === name : one.part === part))
      ?.count ?? 0;
  if (lines.length === 0) return null;
  return (
    <Box component="section" aria-label="Parts" sx={{ py: 1.5 }}>
      <Typography variant="h3" component="h2" sx={{ color: 'text.secondary', mb: 0.5 }}>
        Parts
      </Typography>
      {lines.map(({ part, count, answeredBy }) => {
        const name = answeredBy?.name ?? part;
        const held = used(answeredBy?.id, name);
        const tell = (more: number) =>
          void atWork.tell({
            kind: 'part',
            name,
            count: more,
            ...(answeredBy ? { part: answeredBy.id } : {}),
          });
        const isShort = held > 0 && answeredBy !== null && answeredBy.inVan < 0;
        return (
          <Stack
            key={part}
            direction="row"
            sx={{ alignItems: 'center', gap: 1, borderTop: 1, borderColor: 'divider' }}
          >
            <Figure value={String(held > 0 ? held : count)} unit="×" sx={{ minWidth: 34 }} />
            <Typography sx={{ flex: 1, fontWeight: held > 0 ? 650 : 450 }}>
              {name}
              {isShort && (
                <Typography component="span" variant="body2" sx={{ color: 'notebook.brass', pl: 1 }}>
                  more than the van held by the books
                </Typography>
              )}
            </Typography>
            <Button
              onClick={() => tell(held > 0 ? -held : count)}
              variant={held > 0 ? 'text' : 'outlined'}
              aria-label={held > 0 ? `Take back: ${name}` : `Used: ${name}`}
              sx={{ minHeight: 44, my: 0.5 }}
            >
              {held > 0 ? 'Take back' : 'Used'}
            </Button>
          </Stack>
        );
      })}
    </Box>
  );
}
