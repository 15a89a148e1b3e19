import { Box, Button, Checkbox, FormControlLabel, Typography } from '@mui/material';
import {
  RecordBroughtBack,
  type BringBackView,
  type CompressorView,
  type StandingView,
} from '@entretien/contracts';
import { useState } from 'react';
import { Caution } from '../../components/Caution.js';
import { formatDate } from '../../components/describe-due.js';
import { FormDialog } from '../../components/FormDialog.js';
import { NoteField } from '../../components/NoteField.js';
import { standsStill } from '../../components/standing-still.js';
import { useFactForm } from '../../components/use-fact-form.js';
import { useNow } from '../../components/use-now.js';
import { toLocalText, WhenField } from '../../components/WhenField.js';
import { useMay } from '../../data/me.js';
import { useBringBack } from '../../data/queries.js';

interface StoodProps {
  readonly unit: CompressorView;
  readonly standing: StandingView;
  readonly timeZone: string;
}

/** A machine that stood for months is brought back by a list, not by its switch. */
export function StoodBanner({ unit, standing, timeZone }: StoodProps) {
  const { data } = useBringBack(unit.id, standsStill(standing));
  const [isOpen, setOpen] = useState(false);
  const mayWork = useMay('work');
  const now = useNow();
  if (!data || data.stoodSince === null) return null;
  const since = formatDate(toLocalText(Date.parse(data.stoodSince), timeZone).slice(0, 10), now, timeZone);
  return (
    <Box
      component="section"
      aria-label="It has stood"
      sx={{ borderLeft: 4, borderColor: 'brass', bgcolor: 'brassGround', px: 1.75, py: 1, mb: 1.5 }}
    >
      <Typography sx={{ fontWeight: 650 }}>By its meter it has stood since {since}.</Typography>
      <Typography variant="body2">
        Before it runs: {data.steps.length} points to see to, from proving it empty to its first minutes.
      </Typography>
      {mayWork && (
        <Button variant="contained" onClick={() => setOpen(true)} sx={{ minHeight: 44, mt: 1 }}>
          Bring it back
        </Button>
      )}
      {isOpen && (
        <BringBackDialog unit={unit} list={data} timeZone={timeZone} onClose={() => setOpen(false)} />
      )}
    </Box>
  );
}

interface DialogProps {
  readonly unit: CompressorView;
  readonly list: BringBackView;
  readonly timeZone: string;
  readonly onClose: () => void;
}

function BringBackDialog({ unit, list, timeZone, onClose }: DialogProps) {
  const [done, setDone] = useState<ReadonlySet<string>>(new Set());
  const form = useFactForm<RecordBroughtBack>(
    RecordBroughtBack,
    `/compressors/${unit.id}/brought-back`,
    timeZone,
    onClose,
    { waiting: { tag: unit.tag, timeZone, text: 'Brought back after standing', page: `/units/${unit.id}` } },
  );
  const toggle = (code: string) => {
    const next = new Set(done);
    if (!next.delete(code)) next.add(code);
    setDone(next);
  };
  const left = list.steps.length - done.size;
  return (
    <FormDialog
      title={`${unit.tag}: back after standing`}
      submit={left === 0 ? 'It is back' : `${left} still to see to`}
      canSubmit={left === 0 && form.when !== null}
      isSending={form.isSending}
      problem={form.generalProblem ?? form.problemOf('steps') ?? null}
      onSubmit={() => form.send({ doneAt: new Date(form.when!).toISOString(), steps: [...done] })}
      onClose={onClose}
      wide
    >
      <Box component="ol" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {list.steps.map(({ code, name, how, caution }) => (
          <Box component="li" key={code} sx={{ borderBottom: 1, borderColor: 'divider', py: 0.75 }}>
            <FormControlLabel
              control={<Checkbox checked={done.has(code)} onChange={() => toggle(code)} />}
              label={name}
              slotProps={{ typography: { sx: { fontWeight: 650 } } }}
              sx={{ minHeight: 44 }}
            />
            <Box sx={{ pl: 4 }}>
              <Typography variant="body2">{how}</Typography>
              {caution !== undefined && <Caution text={caution} />}
            </Box>
          </Box>
        ))}
      </Box>
      <WhenField
        label="Brought back at"
        text={form.whenText}
        onText={form.setWhenText}
        problem={form.when === null ? 'Say when.' : form.problemOf('doneAt')}
      />
      <NoteField form={form} />
    </FormDialog>
  );
}
