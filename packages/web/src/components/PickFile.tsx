import { Button, type ButtonProps } from '@mui/material';
import { useRef } from 'react';

interface PickFileProps extends Omit<ButtonProps, 'onClick'> {
  /** What the field is called that the device fills. */
  readonly label: string;
  /** Kinds of files that are offered. */
  readonly accept: string;
  /** Whether the camera comes first. */
  readonly capture?: 'environment';
  readonly onFile: (file: File) => void;
}

/** A file from the device; the same one may be chosen again after it was put right. */
export function PickFile({ label, accept, capture, onFile, ...button }: PickFileProps) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button {...button} onClick={() => input.current?.click()} />
      <input
        ref={input}
        type="file"
        accept={accept}
        capture={capture}
        aria-label={label}
        tabIndex={-1}
        style={{ display: 'none' }}
        onChange={({ target }) => {
          const file = target.files?.[0];
          target.value = '';
          if (file) onFile(file);
        }}
      />
    </>
  );
}
