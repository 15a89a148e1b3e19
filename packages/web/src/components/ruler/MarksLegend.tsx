import InfoIcon from '@mui/icons-material/InfoOutlined';
import {
  Box,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  IconButton,
  Typography,
} from '@mui/material';
import type { TaskState } from '@entretien/core/plan';
import { describeVerdict, verdicts, type Verdict } from '@entretien/core/checks';
import { Fragment, useState, type ReactNode } from 'react';
import { DropMark, stateText } from '../DropMark.js';
import { Vial, verdictColour } from '../VerdictMark.js';
import { NotchMark } from './ruler-drawing.js';

const states: readonly (readonly [TaskState, number | null, string])[] = [
  ['fresh', 0.45, 'The drop fills as the interval is used.'],
  ['nearing', 0.88, 'Plan it: it comes due soon.'],
  ['due', 1, 'Do it now.'],
  ['overdue', 1, 'It is past its time.'],
  ['put-off', 0.9, 'It waits, with a reason, until its day.'],
  ['unknown', null, 'Nothing to count from: inspect it first.'],
];

const measured: Readonly<Record<Verdict, string>> = {
  good: 'Measured within its limit.',
  watch: 'Near its limit: look again soon.',
  act: 'Past its limit: fix it in this visit.',
  stop: 'Dangerous: out of service until it is fixed.',
};

/** What the marks of rulers and lists mean, on one small sheet. */
export function MarksLegend() {
  const [isOpen, setOpen] = useState(false);
  return (
    <>
      <IconButton size="small" aria-label="What the marks mean" onClick={() => setOpen(true)}>
        <InfoIcon fontSize="small" />
      </IconButton>
      <Dialog
        open={isOpen}
        onClose={() => setOpen(false)}
        aria-labelledby="marks-title"
        maxWidth="xs"
        fullWidth
      >
        <DialogTitle id="marks-title">What the marks mean</DialogTitle>
        <DialogContent>
          <Box
            sx={{
              display: 'grid',
              gridTemplateColumns: '44px minmax(0, 1fr)',
              alignItems: 'center',
              rowGap: 1,
            }}
          >
            {states.map(([state, used, text]) => (
              <Row
                key={state}
                mark={<DropMark state={state} used={used} />}
                name={stateText[state]}
                text={text}
              />
            ))}
            <Row mark={<Count />} name="number" text="So many tasks fall on the same place." />
            <Row mark={<Band />} name="band" text="Its date falls inside it eight times in ten." />
            <Row mark={<Notch />} name="triangle" text="Work that was done." />
            {verdicts.map((verdict) => (
              <Row
                key={verdict}
                mark={
                  <Box sx={{ color: verdictColour(verdict) }}>
                    <Vial verdict={verdict} />
                  </Box>
                }
                name={describeVerdict({ verdict })}
                text={measured[verdict]}
              />
            ))}
          </Box>
        </DialogContent>
        <DialogActions>
          <Button onClick={() => setOpen(false)}>Close</Button>
        </DialogActions>
      </Dialog>
    </>
  );
}

function Row({
  mark,
  name,
  text,
}: {
  readonly mark: ReactNode;
  readonly name: string;
  readonly text: string;
}) {
  return (
    <Fragment>
      <Box aria-hidden>{mark}</Box>
      <Typography variant="body2">
        <b>{name}</b> {text}
      </Typography>
    </Fragment>
  );
}

function Count() {
  return (
    <Box sx={{ position: 'relative', width: 32 }}>
      <DropMark state="fresh" used={0.45} />
      <Typography
        component="span"
        variant="caption"
        sx={{ position: 'absolute', left: 20, top: -4, fontWeight: 650 }}
      >
        3
      </Typography>
    </Box>
  );
}

function Band() {
  return (
    <svg width={34} height={12} style={{ display: 'block' }}>
      <rect y={2} width={34} height={8} rx={4} fill="var(--mui-palette-slate)" opacity={0.3} />
    </svg>
  );
}

function Notch() {
  return (
    <svg width={20} height={12} viewBox="-8 -11 20 12" style={{ display: 'block' }}>
      <NotchMark />
    </svg>
  );
}
