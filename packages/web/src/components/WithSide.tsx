import { Box } from '@mui/material';
import type { ReactNode } from 'react';

const edge = '1px solid var(--mui-palette-divider)';

interface WithSideProps {
  /** Width of the side sheet at a desk, in pixels; on a phone it stands below. */
  readonly width?: number;
  /** Left out where what it holds stands elsewhere. */
  readonly side: ReactNode | null;
  readonly children: ReactNode;
}

/** A page with a sheet beside it. */
export function WithSide({ width = 352, side, children }: WithSideProps) {
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: {
          xs: 'minmax(0, 1fr)',
          md: side === null ? 'minmax(0, 1fr)' : `minmax(0, 1fr) ${width}px`,
        },
        gridTemplateRows: { xs: 'auto 1fr', md: '1fr' },
        flex: 1,
      }}
    >
      {children}
      {side !== null && (
        <Box
          component="aside"
          sx={{
            bgcolor: 'background.sheet',
            borderLeft: { md: edge },
            borderTop: { xs: edge, md: 0 },
            minWidth: 0,
          }}
        >
          {side}
        </Box>
      )}
    </Box>
  );
}
