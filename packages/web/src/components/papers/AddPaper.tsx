import { MenuItem, TextField, Typography } from '@mui/material';
import type { PaperView } from '@entretien/contracts';
import {
  fitsKind,
  PAPER_TITLE_LENGTH,
  paperKindNames,
  paperKinds,
  paperTypeOf,
  paperTypes,
  type PaperKind,
} from '@entretien/core/machine';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { v7 as newId } from 'uuid';
import { postBytes, sentenceOf } from '../../data/api.js';
import { usePreferences } from '../../data/preferences.js';
import { refresh } from '../../data/queries.js';
import { FormDialog } from '../FormDialog.js';
import { PickFile } from '../PickFile.js';

/** So much of a file says what it is. */
const BEGINNING_BYTES = 2048;

interface AddPaperProps {
  readonly compressorId: string;
  readonly onClose: () => void;
}

/** A PDF or a sound from the device; what it is, is judged by its content here and on the server. */
export function AddPaper({ compressorId, onClose }: AddPaperProps) {
  const client = useQueryClient();
  const personId = usePreferences((preferences) => preferences.personId);
  const [id] = useState(() => newId());
  const [kind, setKind] = useState<PaperKind>('manual');
  const [title, setTitle] = useState('');
  const [file, setFile] = useState<Blob | null>(null);
  const [fileName, setFileName] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const [isSending, setSending] = useState(false);
  const isSound = kind === 'sound';
  const take = async (chosen: File) => {
    const found = await readFile(chosen, kind);
    setProblem(typeof found === 'string' ? found : null);
    setFile(typeof found === 'string' ? null : found);
    setFileName(chosen.name);
    if (title.trim() === '')
      setTitle(chosen.name.replace(/\.[a-z0-9]{2,5}$/i, '').slice(0, PAPER_TITLE_LENGTH));
  };
  const send = async () => {
    setSending(true);
    setProblem(null);
    try {
      const query = new URLSearchParams({ id, kind, title: title.trim() });
      await postBytes<PaperView>(`/compressors/${compressorId}/papers?${query}`, file!, personId);
      await refresh(client);
      onClose();
    } catch (error) {
      setProblem(sentenceOf(error));
    } finally {
      setSending(false);
    }
  };
  return (
    <FormDialog
      title="A paper of this machine"
      submit="Add it"
      canSubmit={file !== null && title.trim() !== ''}
      isSending={isSending}
      problem={problem}
      onClose={onClose}
      onSubmit={() => void send()}
    >
      <TextField
        select
        label="What it is"
        value={kind}
        onChange={(event) => {
          setKind(event.target.value as PaperKind);
          setFile(null);
          setFileName('');
          setProblem(null);
        }}
      >
        {paperKinds.map((one) => (
          <MenuItem key={one} value={one}>
            {paperKindNames[one]}
          </MenuItem>
        ))}
      </TextField>
      <PickFile
        variant="outlined"
        label={isSound ? 'Sound' : 'PDF'}
        accept={isSound ? 'audio/*' : 'application/pdf'}
        onFile={(chosen) => void take(chosen)}
        sx={{ minHeight: 48 }}
      >
        {isSound ? 'Choose or record a sound' : 'Choose a PDF'}
      </PickFile>
      <Typography variant="body2" sx={{ color: 'text.secondary', overflowWrap: 'anywhere' }}>
        {fileName !== '' && file !== null
          ? fileName
          : isSound
            ? 'Ten seconds, warm, from where one always stands: later ones are heard beside it. 10 MB at most.'
            : '30 MB at most. Without scripts and without a password.'}
      </Typography>
      <TextField
        label="Title"
        required
        value={title}
        onChange={(event) => setTitle(event.target.value)}
        slotProps={{ htmlInput: { maxLength: PAPER_TITLE_LENGTH } }}
      />
    </FormDialog>
  );
}

/** The file as it is sent; or what is wrong with it. */
async function readFile(file: File, kind: PaperKind): Promise<Blob | string> {
  const most = kind === 'sound' ? paperTypes.mp3.mostMB : paperTypes.pdf.mostMB;
  if (file.size > most * 1_000_000)
    return `That file has ${Math.round(file.size / 1_000_000)} MB: ${most} MB at most.`;
  const beginning = await file.slice(0, BEGINNING_BYTES).arrayBuffer();
  const type = paperTypeOf(new Uint8Array(beginning));
  if (type === null || !fitsKind(kind, type))
    return kind === 'sound'
      ? 'That is no sound that can be played: MP3, M4A, Ogg, WebM or WAV.'
      : 'That is no PDF: its content says otherwise, whatever it is called.';
  return new Blob([file], { type: paperTypes[type].mime });
}
