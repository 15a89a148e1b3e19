import { Button, InputAdornment, useMediaQuery } from '@mui/material';

interface SignToggleProps {
  /** What the figure is called. */
  readonly of: string;
  readonly text: string;
  readonly onText: (text: string) => void;
}

/** Turns the sign of a figure, where it is typed on a screen: keypads of figures have no minus. */
export function SignToggle({ of, text, onText }: SignToggleProps) {
  const isTouched = useMediaQuery('(pointer: coarse)');
  if (!isTouched) return null;
  return (
    <InputAdornment position="start">
      <Button
        aria-label={`Change the sign of ${of}`}
        onClick={() => onText(withOtherSign(text))}
        sx={{ minWidth: 44, height: 44, p: 0, ml: -1, fontSize: '1.2rem' }}
      >
        ±
      </Button>
    </InputAdornment>
  );
}

/** A figure with its sign turned; what follows it stays. */
export function withOtherSign(text: string): string {
  const bare = text.trimStart();
  return /^[-−]/.test(bare) ? bare.slice(1).trimStart() : `-${bare.replace(/^\+\s*/, '')}`;
}
