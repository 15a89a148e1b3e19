import CloseIcon from '@mui/icons-material/Close';
import {
  Box,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  IconButton,
  Stack,
  Typography,
  useMediaQuery,
  type Theme,
} from '@mui/material';
import type { StandingView, TaskStandingView } from '@entretien/contracts';
import { describeExplanation, type ExplanationLine } from '@entretien/core/plan';
import { useId } from 'react';
import { usePreferences } from '../../../data/preferences.js';
import { DropMark } from '../../../components/DropMark.js';
import { DueFigure } from '../../../components/DueFigure.js';
import { rulerNow } from '../../../components/ruler/ruler-points.js';
import { describeDue } from '../../../components/describe-due.js';
import { useFormatQuantity } from '../../../components/use-format-quantity.js';
import { readExplanation } from './read-explanation.js';
import { triggerRows } from './trigger-rows.js';
import { TriggerRuler } from './TriggerRuler.js';

interface WhyDialogProps {
  readonly task: TaskStandingView;
  readonly standing: StandingView;
  readonly timeZone: string;
  readonly onClose: () => void;
  readonly onDefer: () => void;
  readonly onRecord: () => void;
  readonly onChangePlan: () => void;
}

const titles: Record<ExplanationLine['step'], string> = {
  rule: 'The rule',
  source: 'Other sources',
  factor: 'What shortens it',
  start: 'Counted from',
  use: 'How it is used',
  point: 'Where that leads',
  due: 'So',
};

/** Why a task is due when it is: the chain of reasoning in sentences, and its triggers on one ruler. */
export function WhyDialog({
  task,
  standing,
  timeZone,
  onClose,
  onDefer,
  onRecord,
  onChangePlan,
}: WhyDialogProps) {
  const titleId = useId();
  const isPhone = useMediaQuery((theme: Theme) => theme.breakpoints.down('sm'));
  const mode = usePreferences((preferences) => preferences.rulerIn);
  const format = useFormatQuantity();
  const explanation = readExplanation(task);
  const at = Date.parse(standing.at);
  const now = rulerNow(standing);
  const ruler = explanation && triggerRows(explanation, mode, now, timeZone, format);
  const steps = explanation ? describeExplanation(explanation, timeZone, format) : [];
  return (
    <Dialog open onClose={onClose} fullScreen={isPhone} fullWidth maxWidth="sm" aria-labelledby={titleId}>
      <DialogTitle id={titleId} sx={{ pr: 7, pb: 1 }}>
        Why: {task.name}
      </DialogTitle>
      <IconButton aria-label="Close" onClick={onClose} sx={{ position: 'absolute', right: 10, top: 10 }}>
        <CloseIcon />
      </IconButton>
      <DialogContent sx={{ pt: '4px !important' }}>
        <Stack direction="row" sx={{ alignItems: 'center', gap: 1.25, mb: 1.5 }}>
          <DropMark state={task.state} used={task.usedFraction} size={34} />
          <DueFigure
            text={describeDue(task, at, timeZone, standing.meter).short}
            state={task.state}
            size="1.35rem"
          />
          <Typography variant="body2" sx={{ color: 'text.secondary' }}>
            {describeDue(task, at, timeZone, standing.meter).exact}
          </Typography>
        </Stack>
        {ruler && ruler.rows.some(({ due }) => due !== null) && (
          <Box sx={{ mb: 1.5 }}>
            <TriggerRuler rows={ruler.rows} mode={ruler.mode} now={now} />
          </Box>
        )}
        {explanation ? (
          <Steps steps={steps} />
        ) : (
          <Typography>
            {task.vessel
              ? 'The law and the papers of the vessel set this date. Enter its months where the vessel is kept.'
              : 'There is no reasoning for this one.'}
          </Typography>
        )}
      </DialogContent>
      <DialogActions sx={{ px: 3, pb: 2 }}>
        {explanation && <Button onClick={onChangePlan}>Change its interval</Button>}
        {explanation && ['nearing', 'due', 'overdue', 'put-off'].includes(task.state) && (
          <Button onClick={onDefer}>Put off</Button>
        )}
        {!task.vessel && (
          <Button variant="outlined" onClick={onRecord}>
            Done
          </Button>
        )}
        <Button variant="contained" onClick={onClose}>
          Close
        </Button>
      </DialogActions>
    </Dialog>
  );
}

/** The steps under their titles, each title once. */
function Steps({ steps }: { readonly steps: readonly ExplanationLine[] }) {
  return (
    <Box
      component="dl"
      sx={{
        m: 0,
        display: 'grid',
        gridTemplateColumns: { xs: '1fr', sm: '128px 1fr' },
        columnGap: 2,
        rowGap: 0.75,
      }}
    >
      {steps.map(({ step, text }, index) => {
        const isFirst = steps[index - 1]?.step !== step;
        return (
          <Box key={`${step}${index}`} sx={{ display: 'contents' }}>
            <Box
              component="dt"
              sx={{
                color: 'text.secondary',
                typography: 'body2',
                display: { xs: isFirst ? 'block' : 'none', sm: 'block' },
              }}
            >
              {isFirst ? titles[step] : ''}
            </Box>
            <Box component="dd" sx={{ m: 0, fontWeight: step === 'due' ? 650 : 400 }}>
              {text}
            </Box>
          </Box>
        );
      })}
    </Box>
  );
}
