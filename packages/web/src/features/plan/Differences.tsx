import { Box, Typography } from '@mui/material';
import type { TaskDifference } from '@entretien/core/plan';

const text: Record<TaskDifference['kind'], string> = { added: 'added', removed: 'taken out', changed: '' };

/** What changes, task by task. */
export function Differences({
  differences,
  none,
  moves,
}: {
  readonly differences: readonly TaskDifference[];
  readonly none: string;
  /** How the next date of a task moves, in words. */
  readonly moves?: ReadonlyMap<string, string>;
}) {
  if (differences.length === 0) {
    return (
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        {none}
      </Typography>
    );
  }
  return (
    <Box component="ul" aria-label="What changes" sx={{ listStyle: 'none', p: 0, m: 0 }}>
      {differences.map(({ code, name, kind, changes }) => (
        <Box component="li" key={code} sx={{ typography: 'body2', py: 0.25 }}>
          <b>{name}</b> {[text[kind], ...changes].filter(Boolean).join('; ')}
          {moves?.has(code) && (
            <Box component="span" sx={{ display: 'block', color: 'primary.main', fontWeight: 600 }}>
              {moves.get(code)}
            </Box>
          )}
        </Box>
      ))}
    </Box>
  );
}
