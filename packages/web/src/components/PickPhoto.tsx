import { Button, Typography, type ButtonProps } from '@mui/material';
import { useRef, useState } from 'react';
import { sentenceOf } from '../data/api.js';

const LARGEST_MB = 15;

interface PickPhotoProps extends Omit<ButtonProps, 'onClick'> {
  /** What the field is called that the device fills. */
  readonly label?: string;
  readonly onPhoto: (photo: Blob) => Promise<void> | void;
}

/** A photo from the device; what it is, is judged by its content on the server. */
export function PickPhoto({ label = 'Photo', onPhoto, children, ...button }: PickPhotoProps) {
  const input = useRef<HTMLInputElement>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const take = async (file: File | undefined) => {
    setProblem(null);
    if (!file) return;
    if (file.size > LARGEST_MB * 1_000_000) {
      return setProblem(
        `That photo has ${Math.round(file.size / 1_000_000)} MB: ${LARGEST_MB} MB at most. Take it with fewer pixels.`,
      );
    }
    if (!(await isPicture(file))) return setProblem('That is no photo that can be read: JPEG, PNG or WebP.');
    try {
      await onPhoto(file);
    } catch (error) {
      setProblem(sentenceOf(error));
    }
  };
  return (
    <>
      <Button {...button} onClick={() => input.current?.click()}>
        {children}
      </Button>
      <input
        ref={input}
        type="file"
        accept="image/jpeg,image/png,image/webp"
        capture="environment"
        aria-label={label}
        tabIndex={-1}
        style={{ display: 'none' }}
        onChange={({ target }) => {
          void take(target.files?.[0]);
          target.value = '';
        }}
      />
      {problem && (
        <Typography role="alert" variant="body2" sx={{ color: 'oxide', alignSelf: 'center' }}>
          {problem}
        </Typography>
      )}
    </>
  );
}

/** Whether the device can read it as a picture. */
async function isPicture(file: Blob): Promise<boolean> {
  try {
    (await createImageBitmap(file)).close();
    return true;
  } catch {
    return false;
  }
}
