import { Box, Typography } from '@mui/material';
import type { FaultList } from '@entretien/core/faults';
import { Caution } from './Caution.js';
import { figureFont } from './theme/theme.js';

interface FaultListsProps {
  readonly title: string;
  readonly lists: readonly FaultList[];
}

/** Symptoms beside the compressor: each opens to what is behind it, the likeliest first, and what shows it. */
export function FaultLists({ title, lists }: FaultListsProps) {
  if (lists.length === 0) return null;
  return (
    <Box component="section" aria-label={title} sx={{ mt: 3 }}>
      <Typography variant="h2" sx={{ mb: 0.5 }}>
        {title}
      </Typography>
      {lists.map(({ code, text, caution, causes }) => (
        <Box
          component="details"
          key={code}
          sx={{
            borderTop: 1,
            borderColor: 'divider',
            '& summary': { cursor: 'pointer', minHeight: 44, alignContent: 'center', fontWeight: 600 },
          }}
        >
          <summary>{text}</summary>
          {caution !== undefined && <Caution text={caution} />}
          <Box component="ol" sx={{ listStyle: 'none', p: 0, m: 0, pb: 1 }}>
            {causes.map((cause) => (
              <Box
                component="li"
                key={cause.text}
                sx={{ display: 'grid', gridTemplateColumns: '3.5rem 1fr', py: 0.5, columnGap: 1 }}
              >
                <Box component="span" sx={{ ...figureFont, fontWeight: 650 }}>
                  {`${cause.percent}\u00a0%`}
                </Box>
                <span>
                  <strong>{cause.text}</strong>
                  <Typography component="span" variant="body2" sx={{ display: 'block' }}>
                    {cause.look}
                  </Typography>
                </span>
              </Box>
            ))}
          </Box>
        </Box>
      ))}
    </Box>
  );
}
