import { Box, Button, type ButtonProps } from '@mui/material';
import { useEffect, useRef, useState } from 'react';

/** How long it is held: what is said of a machine's pressure is not tapped by a sleeve. */
const HOLD_MS = 1000;

interface HoldButtonProps extends Omit<ButtonProps, 'onClick'> {
  readonly onHeld: () => void;
}

/** A large target that is held for a second, by a glove, a knuckle, or a key. */
export function HoldButton({ onHeld, children, sx, disabled, ...button }: HoldButtonProps) {
  const [isHeld, setHeld] = useState(false);
  const timer = useRef<number | null>(null);
  const end = () => {
    if (timer.current !== null) window.clearTimeout(timer.current);
    timer.current = null;
    setHeld(false);
  };
  const begin = () => {
    if (timer.current !== null || disabled) return;
    setHeld(true);
    timer.current = window.setTimeout(() => {
      end();
      onHeld();
    }, HOLD_MS);
  };
  useEffect(() => end, []);
  const isKey = (key: string) => key === 'Enter' || key === ' ';
  return (
    <Button
      variant="contained"
      disabled={disabled ?? false}
      {...button}
      onPointerDown={(event) => {
        if (event.button === 0) begin();
      }}
      onPointerUp={end}
      onPointerLeave={end}
      onPointerCancel={end}
      onContextMenu={(event) => event.preventDefault()}
      onKeyDown={(event) => {
        if (isKey(event.key) && !event.repeat) begin();
      }}
      onKeyUp={end}
      onBlur={end}
      sx={{
        minHeight: 72,
        fontSize: '1.05rem',
        lineHeight: 1.25,
        position: 'relative',
        overflow: 'hidden',
        touchAction: 'none',
        userSelect: 'none',
        ...sx,
      }}
    >
      <Box
        aria-hidden
        sx={{
          position: 'absolute',
          inset: 0,
          transformOrigin: 'left',
          transform: isHeld ? 'scaleX(1)' : 'scaleX(0)',
          transition: isHeld ? `transform ${HOLD_MS}ms linear` : 'none',
          bgcolor: 'currentColor',
          opacity: 0.28,
        }}
      />
      <Box component="span" sx={{ position: 'relative' }}>
        {children}
      </Box>
    </Button>
  );
}
