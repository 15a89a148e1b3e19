import { Box, Button, Collapse, Stack, Typography } from '@mui/material';
import { benches } from '@entretien/core/bench';
import { useId, useState, type ReactNode } from 'react';
import { useParams } from 'react-router';
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
        <ExampleOffer address={address} />
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

/** An empty bench shows on invented figures what it does, and says that they are. */
function ExampleOffer({ address: { texts, setTexts } }: { readonly address: BenchAddress }) {
  const { tool } = useParams();
  const example = benches.find(({ code }) => code === tool)?.example;
  if (!example) return null;
  const isEmpty = Object.keys(texts).length === 0;
  const isExample = !isEmpty && Object.entries(example).every(([code, text]) => texts[code] === text);
  if (isEmpty)
    return (
      <Button variant="outlined" onClick={() => setTexts(example)} sx={{ mb: 2, minHeight: 44 }}>
        Show an example
      </Button>
    );
  if (!isExample) return null;
  const empty = Object.fromEntries(Object.keys(texts).map((code) => [code, '']));
  return (
    <Stack direction="row" role="note" sx={{ alignItems: 'center', gap: 1.5, mb: 1.5 }}>
      <Typography variant="body2" sx={{ color: 'slate', fontWeight: 650 }}>
        An example: the figures are invented.
      </Typography>
      <Button onClick={() => setTexts(empty)} sx={{ minHeight: 44 }}>
        Clear it
      </Button>
    </Stack>
  );
}

const edge = '1px solid var(--mui-palette-divider)';
