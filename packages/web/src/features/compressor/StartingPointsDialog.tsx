import { Box, FormControlLabel, MenuItem, Radio, RadioGroup, TextField, Typography } from '@mui/material';
import { type PlanView, SetStartingPoints, type StandingView } from '@entretien/contracts';
import { foundShares, pointByShare, type FoundShare, type StartingBasis } from '@entretien/core/plan';
import { useState } from 'react';
import { FormDialog } from '../../components/FormDialog.js';
import { NoteField } from '../../components/NoteField.js';
import { useFactForm } from '../../components/use-fact-form.js';
import { useNow } from '../../components/use-now.js';
import { isStickerRead, StickerLines, stickerPoints, type StickerEntries } from './StickerLines.js';
import { WhenField } from '../../components/WhenField.js';

interface StartingPointsProps {
  readonly compressorId: string;
  readonly tag: string;
  readonly standing: StandingView;
  readonly plan: PlanView;
  readonly timeZone: string;
  /** What it is taken to rest on at first. */
  readonly firstBasis?: StartingBasis;
  readonly onClose: () => void;
}

const found: Readonly<Record<FoundShare, string>> = {
  new: 'as good as new',
  quarter: 'a quarter used',
  half: 'half used',
  most: 'three quarters used',
  spent: 'used up',
};

/** Says where the tasks of a machine of unknown history count from: by what was found, or by an estimate. */
export function StartingPointsDialog({
  compressorId,
  tag,
  standing,
  plan,
  timeZone,
  firstBasis = 'inspection',
  onClose,
}: StartingPointsProps) {
  const form = useFactForm<SetStartingPoints>(
    SetStartingPoints,
    `/compressors/${compressorId}/starting-points`,
    timeZone,
    onClose,
  );
  const [basis, setBasis] = useState<StartingBasis>(firstBasis);
  const [entries, setEntries] = useState<StickerEntries>({});
  const [answers, setAnswers] = useState<Readonly<Record<string, string>>>({});
  const now = useNow();
  const byCode = new Map(plan.tasks.map((task) => [task.code, task]));
  const open = standing.tasks.flatMap(({ code, startedBy, explanation }) => {
    const task = byCode.get(code);
    // What keeps somebody safe is seen, never estimated.
    const isOpen = startedBy === null && !(task?.safety && basis === 'estimate');
    // The interval as it holds here: what the place shortens is counted in.
    const applied = explanation?.triggers.map((one) => one.applied);
    return task && isOpen ? [{ ...task, triggers: applied ?? task.triggers }] : [];
  });
  const isSticker = basis === 'sticker';
  const when = form.when ?? now;
  const points = isSticker
    ? stickerPoints(open, entries)
    : open
        .filter(({ code }) => answers[code])
        .map((task) => pointByShare(task, foundShares[answers[task.code] as FoundShare], when, timeZone));
  return (
    <FormDialog
      title={`Last done on ${tag}`}
      submit={points.length === 1 ? 'Set 1 task' : `Set ${points.length} tasks`}
      canSubmit={points.length > 0 && form.when !== null && (!isSticker || isStickerRead(entries))}
      isSending={form.isSending}
      problem={form.generalProblem}
      onClose={onClose}
      onSubmit={() => form.send({ setAt: new Date(when).toISOString(), basis, points })}
      wide
    >
      <Typography sx={{ color: 'text.secondary' }}>
        What you leave open stays not known; safety tasks are due until somebody looked. Doing the work counts
        more than any of this.
      </Typography>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 2, alignItems: 'center' }}>
        <RadioGroup
          row
          aria-label="What it rests on"
          value={basis}
          onChange={(event) => setBasis(event.target.value as typeof basis)}
        >
          <FormControlLabel value="sticker" control={<Radio />} label="Its sticker says so" />
          <FormControlLabel value="inspection" control={<Radio />} label="I looked at it" />
          <FormControlLabel value="estimate" control={<Radio />} label="Estimate agreed with the customer" />
        </RadioGroup>
        <WhenField
          label="On"
          size="small"
          text={form.whenText}
          onText={form.setWhenText}
          problem={form.problemOf('setAt')}
        />
      </Box>
      {open.length === 0 && <Typography>Every task has something to count from already.</Typography>}
      {isSticker && (
        <StickerLines
          compressorId={compressorId}
          tasks={open}
          entries={entries}
          onEntries={setEntries}
          problemOf={(task, field) => {
            const index = points.findIndex((point) => point.task === task);
            return index < 0 ? null : form.problemOf(`points.${index}.${field}`);
          }}
        />
      )}
      <Box
        sx={{
          display: isSticker ? 'none' : 'grid',
          gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' },
          columnGap: 3,
          rowGap: 1.25,
        }}
      >
        {open.map(({ code, name }) => (
          <TextField
            key={code}
            select
            size="small"
            label={name}
            value={answers[code] ?? ''}
            onChange={(event) => setAnswers({ ...answers, [code]: event.target.value })}
          >
            <MenuItem value="">not known</MenuItem>
            {Object.entries(found).map(([code, name]) => (
              <MenuItem key={code} value={code}>
                {name}
              </MenuItem>
            ))}
          </TextField>
        ))}
      </Box>
      <NoteField form={form} />
    </FormDialog>
  );
}
