import { Box, TextField } from '@mui/material';
import { stepLimits } from '@entretien/core/visit';
import { useState } from 'react';
import { FormDialog } from '../../components/FormDialog.js';
import { PickPhoto } from '../../components/PickPhoto.js';
import { useObjectUrl } from '../../components/use-object-url.js';
import type { CompressorAtWork } from './use-visit.js';

interface PhotoButtonProps {
  readonly atWork: CompressorAtWork;
  readonly station: string | undefined;
}

/** A photo of what one is working at, and what it shows. */
export function PhotoButton({ atWork, station }: PhotoButtonProps) {
  const [taken, setTaken] = useState<Blob | null>(null);
  const count = atWork.progress.photos.filter((photo) => photo.station === station).length;
  return (
    <>
      <PickPhoto onPhoto={setTaken} sx={{ minHeight: { xs: 44, md: 32 }, py: 0 }}>
        {count === 0 ? 'Photo' : `Photo (${count})`}
      </PickPhoto>
      {taken && (
        <KeepPhoto
          photo={taken}
          onKeep={(caption) => {
            setTaken(null);
            void atWork.sendPhoto(taken, station, caption);
          }}
          onClose={() => setTaken(null)}
        />
      )}
    </>
  );
}

interface KeepPhotoProps {
  readonly photo: Blob;
  readonly onKeep: (caption: string) => void;
  readonly onClose: () => void;
}

/** The photo is looked at before it is kept: a blurred one is taken again while one still stands there. */
function KeepPhoto({ photo, onKeep, onClose }: KeepPhotoProps) {
  const [caption, setCaption] = useState('');
  const source = useObjectUrl(photo);
  return (
    <FormDialog title="Photo" submit="Save" onSubmit={() => onKeep(caption.trim())} onClose={onClose}>
      <Box
        component="img"
        src={source}
        alt="The photo just taken"
        sx={{ width: '100%', maxHeight: '46vh', objectFit: 'contain', bgcolor: 'divider', borderRadius: 0.5 }}
      />
      <TextField
        label="What it shows"
        value={caption}
        onChange={(event) => setCaption(event.target.value)}
        slotProps={{ htmlInput: { maxLength: stepLimits.name } }}
      />
    </FormDialog>
  );
}
