import { Box, Stack } from '@mui/material';
import { PhotoThumb } from '../../components/PhotoThumb.js';
import { useObjectUrl } from '../../components/use-object-url.js';
import { useOutbox } from '../../data/outbox/outbox.js';
import type { CompressorAtWork } from './use-visit.js';

/** Pixels that a photo is wide. */
const WIDE = 116;

interface VisitPhotosProps {
  readonly atWork: CompressorAtWork;
  /** Only what was taken of one station, or of none in particular; all of them when it is not given. */
  readonly of?: { readonly station: string | undefined };
}

/** The photos of a visit with what they show; those that have not reached the server yet, from this device. */
export function VisitPhotos({ atWork, of }: VisitPhotosProps) {
  const photos = atWork.progress.photos.filter(({ station }) => !of || station === of.station);
  const isSent = (id: string) => atWork.steps.some((step) => step.id === id && step.marks !== undefined);
  if (photos.length === 0) return null;
  return (
    <Stack
      component="ul"
      aria-label="Photos"
      direction="row"
      sx={{ flexWrap: 'wrap', gap: 1, mt: 1, mb: 0, p: 0, listStyle: 'none' }}
    >
      {photos.map(({ id, photo, caption }) => (
        <Box key={photo} component="li" sx={{ width: WIDE }}>
          {isSent(id) ? (
            <SentPhoto visitId={atWork.visit.id} photo={photo} caption={caption} />
          ) : (
            <HeldPhoto photo={photo} caption={caption} />
          )}
        </Box>
      ))}
    </Stack>
  );
}

interface ThumbProps {
  readonly photo: string;
  readonly caption: string | undefined;
}

function SentPhoto({ visitId, photo, caption }: ThumbProps & { readonly visitId: string }) {
  const address = `/api/visits/${visitId}/photos/${photo}`;
  return (
    <PhotoThumb source={address} alt={caption ?? 'Photo of the visit'} caption={caption} width={WIDE} opens />
  );
}

function HeldPhoto({ photo, caption }: ThumbProps) {
  const blob = useOutbox(({ items }) => items.find(({ id }) => id === photo)?.photo);
  const source = useObjectUrl(blob);
  const text = caption === undefined ? 'not sent yet' : `${caption}, not sent yet`;
  return <PhotoThumb source={source} alt={text} caption={text} width={WIDE} opens={false} />;
}
