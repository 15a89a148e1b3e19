import { Box, Button, Stack, Typography } from '@mui/material';
import SignaturePadCanvas from 'signature_pad';
import { useEffect, useRef } from 'react';

const WIDTH = 300;
const HEIGHT = 100;
const LONGEST = 20_000;

interface PadProps {
  readonly onStrokes: (strokes: string) => void;
}

/** A box to sign in; the strokes are kept, not the picture. */
export function SignaturePad({ onStrokes }: PadProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const pad = useRef<SignaturePadCanvas>(null);
  useEffect(() => {
    const made = new SignaturePadCanvas(canvas.current!, {
      penColor: getComputedStyle(canvas.current!).color,
      minWidth: 0.8,
      maxWidth: 2,
    });
    pad.current = made;
    const report = () => onStrokes(writeStrokes(made.toData()));
    made.addEventListener('endStroke', report);
    return () => made.off();
  }, [onStrokes]);
  const clear = () => {
    pad.current?.clear();
    onStrokes('');
  };
  return (
    <Box sx={{ maxWidth: WIDTH + 2 }}>
      <Box
        component="canvas"
        ref={canvas}
        width={WIDTH}
        height={HEIGHT}
        aria-label="Signature"
        role="img"
        sx={{
          display: 'block',
          color: 'text.primary',
          width: WIDTH,
          height: HEIGHT,
          bgcolor: 'background.sheet',
          border: 1,
          borderColor: 'strongRule',
          borderRadius: 1,
          touchAction: 'none',
        }}
      />
      <Stack direction="row" sx={{ alignItems: 'center', justifyContent: 'space-between' }}>
        <Typography variant="caption" sx={{ color: 'text.secondary' }}>
          Sign above; a typed name alone will do.
        </Typography>
        <Button onClick={clear} sx={{ minHeight: 44 }}>
          Clear
        </Button>
      </Stack>
    </Box>
  );
}

/** Strokes as `x,y x,y;x,y …` with a tenth of a point, thinned where there are very many. */
function writeStrokes(
  groups: readonly { readonly points: readonly { readonly x: number; readonly y: number }[] }[],
): string {
  const round = (value: number) => Math.round(value * 10) / 10;
  for (let every = 1; every <= 64; every *= 2) {
    const written = groups
      .map(({ points }) =>
        points
          .filter((_point, index) => index % every === 0)
          .map(({ x, y }) => `${round(x)},${round(y)}`)
          .join(' '),
      )
      .join(';');
    if (written.length <= LONGEST) return written;
  }
  return '';
}
