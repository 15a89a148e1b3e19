import { Button, Typography } from '@mui/material';
import { useRef, useState } from 'react';
import type { CompressorAtWork } from './use-visit.js';

const LARGEST_MB = 15;

/** A photo from the device; what it is, is judged by its content on the server. */
export function PhotoButton({
  atWork,
  station,
}: {
  readonly atWork: CompressorAtWork;
  readonly station: string | undefined;
}) {
  const input = useRef<HTMLInputElement>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const count = atWork.progress.photos.filter((photo) => photo.station === station).length;
  const take = async (file: File | undefined) => {
    setProblem(null);
    if (!file) return;
    if (file.size > LARGEST_MB * 1_000_000) {
      return setProblem(
        `That photo has ${Math.round(file.size / 1_000_000)} MB: ${LARGEST_MB} MB at most. Take it with fewer pixels.`,
      );
    }
    if (!(await isPicture(file))) return setProblem('That is no photo that can be read: JPEG, PNG or WebP.');
    await atWork.sendPhoto(file, station);
  };
  return (
    <>
      <Button onClick={() => input.current?.click()} sx={{ minHeight: { xs: 44, md: 32 }, py: 0 }}>
        {count === 0 ? 'Photo' : `Photo (${count})`}
      </Button>
      <input
        ref={input}
        type="file"
        accept="image/jpeg,image/png,image/webp"
        capture="environment"
        aria-label="Photo"
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
