import { Box, Typography } from '@mui/material';
import type { ReactNode } from 'react';
import { Brand } from '../../components/Brand.js';

interface AccessFrameProps {
  readonly title: string;
  readonly children: ReactNode;
}

/** A page before anybody is in: one thing to do, nothing else to press. */
export function AccessFrame({ title, children }: AccessFrameProps) {
  return (
    <Box
      component="main"
      sx={{ flex: 1, display: 'flex', justifyContent: 'center', px: 2, py: { xs: 4, sm: 8 } }}
    >
      <Box sx={{ width: '100%', maxWidth: 400, display: 'flex', flexDirection: 'column', gap: 2 }}>
        <Brand />
        <Typography variant="h1">{title}</Typography>
        {children}
      </Box>
    </Box>
  );
}
