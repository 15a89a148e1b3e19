import { Box, Button, Collapse, Typography } from '@mui/material';
import { useId, useState, type ReactNode } from 'react';
import type { BenchAddress } from './use-bench.js';
import { CompressorPicker } from './CompressorPicker.js';

interface FrameProps {
  readonly title: string;
  readonly address: BenchAddress;
  readonly inputs: ReactNode;
  /** The answer, its picture and its figures. */
  readonly children: ReactNode;
  /** Formula and source, shown when asked for. */
  readonly formula: ReactNode;
  readonly save?: ReactNode;
}

/** What every bench is like: inputs on a sheet, the answer first, then its picture. */
export function BenchFrame({ title, address, inputs, children, formula, save }: FrameProps) {
  const [formulaShown, setFormulaShown] = useState(false);
  const id = useId();
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: '420px minmax(0, 1fr)' },
        alignItems: 'stretch',
        minWidth: 0,
      }}
    >
      <Box
        component="section"
        aria-label="What it starts from"
        sx={{
          bgcolor: 'background.sheet',
          borderLeft: { md: edge },
          borderRight: { md: edge },
          borderBottom: { xs: edge, md: 0 },
          px: { xs: 2, md: 2.5 },
          py: 2,
          display: 'flex',
          flexDirection: 'column',
          gap: 1.25,
          minWidth: 0,
        }}
      >
        <Typography variant="h2" component="h1">
          {title}
        </Typography>
        <CompressorPicker address={address} />
        {inputs}
        {save}
      </Box>
      <Box sx={{ px: { xs: 2, md: 3.5 }, py: 2, minWidth: 0 }}>
        {children}
        <Button
          onClick={() => setFormulaShown(!formulaShown)}
          aria-expanded={formulaShown}
          aria-controls={id}
          sx={{ mt: 1.5, px: 0 }}
        >
          Formula and source
        </Button>
        <Collapse in={formulaShown} id={id}>
          <Box sx={{ typography: 'body2', maxWidth: 640, '& p': { mt: 0, mb: 1 } }}>{formula}</Box>
        </Collapse>
      </Box>
    </Box>
  );
}

const edge = '1px solid var(--mui-palette-divider)';
