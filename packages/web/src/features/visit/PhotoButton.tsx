import { PickPhoto } from '../../components/PickPhoto.js';
import type { CompressorAtWork } from './use-visit.js';

interface PhotoButtonProps {
  readonly atWork: CompressorAtWork;
  readonly station: string | undefined;
}

/** A photo of what one is working at. */
export function PhotoButton({ atWork, station }: PhotoButtonProps) {
  const count = atWork.progress.photos.filter((photo) => photo.station === station).length;
  return (
    <PickPhoto
      onPhoto={(photo) => atWork.sendPhoto(photo, station)}
      sx={{ minHeight: { xs: 44, md: 32 }, py: 0 }}
    >
      {count === 0 ? 'Photo' : `Photo (${count})`}
    </PickPhoto>
  );
}
