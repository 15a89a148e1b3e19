import { Box, Button, MenuItem, TextField, Typography } from '@mui/material';
import { RecordModelNote, type CompressorView } from '@entretien/contracts';
import {
  MODEL_NOTE_LENGTH,
  modelKeyOf,
  modelNoteKinds,
  modelNoteNames,
  type ModelNoteKind,
} from '@entretien/core/machine';
import { useState } from 'react';
import { useMay } from '../data/me.js';
import { useModelNotes } from '../data/queries.js';
import { FormDialog } from './FormDialog.js';
import { useFactForm } from './use-fact-form.js';

interface NotesProps {
  readonly unit: CompressorView;
  readonly timeZone: string;
  /** Where one comes to write; elsewhere they are only read, and left out where there are none. */
  readonly mayAdd?: boolean;
}

/** What is known of a model, whichever of its sisters it was told at. */
export function ModelNotes({ unit, timeZone, mayAdd = false }: NotesProps) {
  const { data: notes = [] } = useModelNotes(unit.id);
  const [isAdding, setAdding] = useState(false);
  const mayWork = useMay('work');
  if (notes.length === 0 && !mayAdd) return null;
  const hasModel = modelKeyOf(unit) !== null;
  return (
    <Box component="section" aria-label="Known of this model">
      <Typography variant="h3" component="h3" sx={{ mb: 0.5 }}>
        Known of this model
      </Typography>
      {!hasModel && (
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          Its plate names no model. With one, what is learned here is shown at all its sisters.
        </Typography>
      )}
      {hasModel && notes.length === 0 && (
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          Nothing yet: the trick that helps, what is hard to reach, which part fits.
        </Typography>
      )}
      <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {notes.map(({ id, about, text, tag }) => (
          <Box component="li" key={id} sx={{ borderBottom: 1, borderColor: 'divider', py: 0.75 }}>
            <Typography>
              <Box component="span" sx={{ fontWeight: 650 }}>
                {modelNoteNames[about]}:
              </Box>{' '}
              {text}
            </Typography>
            {tag !== unit.tag && (
              <Typography variant="body2" sx={{ color: 'text.secondary' }}>
                told at {tag}
              </Typography>
            )}
          </Box>
        ))}
      </Box>
      {mayAdd && mayWork && hasModel && (
        <Button variant="outlined" onClick={() => setAdding(true)} sx={{ mt: 1, minHeight: 44 }}>
          Add to it
        </Button>
      )}
      {isAdding && <NoteDialog unit={unit} timeZone={timeZone} onClose={() => setAdding(false)} />}
    </Box>
  );
}

interface DialogProps {
  readonly unit: CompressorView;
  readonly timeZone: string;
  readonly onClose: () => void;
}

function NoteDialog({ unit, timeZone, onClose }: DialogProps) {
  const [about, setAbout] = useState<ModelNoteKind>('trick');
  const [text, setText] = useState('');
  const form = useFactForm<RecordModelNote>(
    RecordModelNote,
    `/compressors/${unit.id}/model-notes`,
    timeZone,
    onClose,
    { waiting: { tag: unit.tag, timeZone, text: 'Known of its model', page: `/units/${unit.id}?tab=plate` } },
  );
  return (
    <FormDialog
      title={`Known of ${[unit.maker, unit.model].filter(Boolean).join(' ')}`}
      submit="Save for all of this model"
      canSubmit={text.trim() !== ''}
      isSending={form.isSending}
      problem={form.generalProblem}
      onSubmit={() => form.send({ about, text: text.trim() })}
      onClose={onClose}
    >
      <TextField
        select
        label="What it is about"
        value={about}
        onChange={(event) => setAbout(event.target.value as ModelNoteKind)}
      >
        {modelNoteKinds.map((kind) => (
          <MenuItem key={kind} value={kind}>
            {modelNoteNames[kind]}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        label="What is known"
        value={text}
        onChange={(event) => setText(event.target.value)}
        error={form.problemOf('text') !== undefined}
        helperText={form.problemOf('text')}
        multiline
        minRows={3}
        slotProps={{ htmlInput: { maxLength: MODEL_NOTE_LENGTH } }}
      />
    </FormDialog>
  );
}
