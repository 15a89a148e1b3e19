import { Box, Stack, Typography } from '@mui/material';
import { useObjectUrl } from '../../components/use-object-url.js';
import { useOutbox } from '../../data/outbox/outbox.js';
import type { CompressorAtWork } from './use-visit.js';

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
        <Box key={photo} component="li" sx={{ width: 116 }}>
          {isSent(id) ? (
            <SentPhoto address={`/api/visits/${atWork.visit.id}/photos/${photo}`} caption={caption} />
          ) : (
            <HeldPhoto photo={photo} caption={caption} />
          )}
        </Box>
      ))}
    </Stack>
  );
}

function SentPhoto({ address, caption }: { readonly address: string; readonly caption: string | undefined }) {
  return (
    <Box
      component="a"
      href={address}
      target="_blank"
      rel="noreferrer"
      sx={{ display: 'block', color: 'text.secondary' }}
    >
      <Picture source={address} caption={caption} />
    </Box>
  );
}

function HeldPhoto({ photo, caption }: { readonly photo: string; readonly caption: string | undefined }) {
  const blob = useOutbox(({ items }) => items.find(({ id }) => id === photo)?.photo);
  const source = useObjectUrl(blob);
  return <Picture source={source} caption={[caption, 'not sent yet'].filter(Boolean).join(', ')} />;
}

function Picture({
  source,
  caption,
}: {
  readonly source: string | undefined;
  readonly caption: string | undefined;
}) {
  return (
    <>
      {source !== undefined && (
        <Box
          component="img"
          src={source}
          alt={caption ?? 'Photo of the visit'}
          sx={{ width: 116, height: 87, objectFit: 'cover', borderRadius: 0.5, display: 'block' }}
        />
      )}
      {caption && (
        <Typography variant="caption" component="p" sx={{ color: 'text.secondary' }}>
          {caption}
        </Typography>
      )}
    </>
  );
}
