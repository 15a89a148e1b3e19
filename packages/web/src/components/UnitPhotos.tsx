import { Box, Stack } from '@mui/material';
import type { CompressorPhotoView, Page, PhotoView } from '@entretien/contracts';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { v7 as newId } from 'uuid';
import { getJson, postBytes } from '../data/api.js';
import { usePreferences } from '../data/preferences.js';
import { PhotoThumb } from './PhotoThumb.js';
import { PickPhoto } from './PickPhoto.js';

interface UnitPhotosProps {
  readonly compressorId: string;
  /** What a photo taken here shows, like its sticker. */
  readonly caption?: string;
  readonly button?: string;
}

/** Photos of the machine itself: its plate, its sticker, how it stands. */
export function UnitPhotos({ compressorId, caption, button = 'Add a photo' }: UnitPhotosProps) {
  const client = useQueryClient();
  const personId = usePreferences((preferences) => preferences.personId);
  const path = `/compressors/${compressorId}/photos`;
  const queryKey = ['photos', compressorId];
  const { data } = useQuery({ queryKey, queryFn: () => getJson<Page<CompressorPhotoView>>(path) });
  const send = async (photo: Blob) => {
    const about = caption === undefined ? '' : `&caption=${encodeURIComponent(caption)}`;
    await postBytes<PhotoView>(`${path}?id=${newId()}${about}`, photo, personId);
    await client.invalidateQueries({ queryKey });
  };
  return (
    <Stack spacing={1}>
      <Stack direction="row" sx={{ flexWrap: 'wrap', gap: 1 }}>
        {(data?.items ?? []).map((photo) => (
          <PhotoThumb
            key={photo.id}
            source={`/api${path}/${photo.id}`}
            alt={photo.caption ?? 'Photo of the machine'}
            caption={photo.caption}
            width={132}
            opens
          />
        ))}
      </Stack>
      <Box>
        <PickPhoto variant="outlined" onPhoto={send} sx={{ minHeight: 44 }}>
          {button}
        </PickPhoto>
      </Box>
    </Stack>
  );
}
