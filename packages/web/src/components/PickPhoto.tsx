import { Typography, type ButtonProps } from '@mui/material';
import { useState } from 'react';
import { sentenceOf } from '../data/api.js';
import { PickFile } from './PickFile.js';

const LARGEST_MB = 15;

interface PickPhotoProps extends Omit<ButtonProps, 'onClick'> {
  /** What the field is called that the device fills. */
  readonly label?: string;
  readonly onPhoto: (photo: Blob) => Promise<void> | void;
}

/** A photo from the device; what it is, is judged by its content on the server. */
export function PickPhoto({ label = 'Photo', onPhoto, ...button }: PickPhotoProps) {
  const [problem, setProblem] = useState<string | null>(null);
  const take = async (file: File) => {
    setProblem(null);
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
      <PickFile
        {...button}
        label={label}
        accept="image/jpeg,image/png,image/webp"
        capture="environment"
        onFile={(file) => void take(file)}
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
