import { Box, Button, Stack, Typography } from '@mui/material';
import { checkByCode, outcomeOf, type CheckDefinition } from '@entretien/core/checks';
import type { MeasurePhase } from '@entretien/core/visit';
import { useState } from 'react';
import { usePreferences } from '../../data/preferences.js';
import { stayingTexts, type CheckTexts } from '../../components/checks/check-entries.js';
import { JudgedFields } from '../../components/checks/JudgedFields.js';
import { useJudged } from '../../components/checks/use-judged.js';
import { VerdictMark } from '../../components/VerdictMark.js';
import type { CompressorAtWork } from './use-visit.js';

interface MeasureCardProps {
  readonly atWork: CompressorAtWork;
  readonly check: string;
  readonly phase: MeasurePhase;
  /** Whether its fields stand open before anybody asked. */
  readonly isOpen?: boolean;
  readonly onLeaveOut?: (() => void) | undefined;
}

/** One check of the visit: what was measured so far, and its fields, judged while one types. */
export function MeasureCard({ atWork, check: code, phase, isOpen = false, onLeaveOut }: MeasureCardProps) {
  const check = checkByCode(code);
  const [isMeasuring, setMeasuring] = useState(isOpen);
  if (!check) return null;
  const taken = atWork.progress.measured.filter((one) => one.check === code);
  const here = taken.filter((one) => one.phase === phase);
  return (
    <Box component="section" aria-label={check.name} sx={{ borderTop: 1, borderColor: 'divider', py: 1.25 }}>
      <Stack direction="row" sx={{ alignItems: 'center', gap: 1 }}>
        <Typography variant="h3" component="h2" sx={{ flex: 1 }}>
          {check.name}
        </Typography>
        {!isMeasuring && (
          <Button
            variant={here.length > 0 ? 'text' : 'outlined'}
            onClick={() => setMeasuring(true)}
            sx={{ minHeight: 44 }}
          >
            {here.length > 0 ? 'Measure again' : 'Measure'}
          </Button>
        )}
      </Stack>
      {taken.map(({ id, phase: when, verdict, noComparison, reason }) => (
        <Stack key={id} direction="row" sx={{ gap: 1.25, alignItems: 'start', py: 0.4 }}>
          <Typography variant="body2" sx={{ color: 'text.secondary', minWidth: 52 }}>
            {whenText[when]}
          </Typography>
          {verdict && <VerdictMark verdict={verdict} noComparison={noComparison} />}
          <Typography variant="body2" sx={{ flex: 1 }}>
            {reason}
          </Typography>
        </Stack>
      ))}
      {isMeasuring && (
        <MeasureFields
          atWork={atWork}
          check={check}
          phase={phase}
          onSaved={() => setMeasuring(false)}
          onLeaveOut={here.length === 0 ? onLeaveOut : undefined}
        />
      )}
    </Box>
  );
}

export const whenText: Readonly<Record<MeasurePhase, string>> = {
  before: 'before',
  work: 'at work',
  proof: 'after',
};

interface FieldsProps {
  readonly atWork: CompressorAtWork;
  readonly check: CheckDefinition;
  readonly phase: MeasurePhase;
  readonly onSaved: () => void;
  readonly onLeaveOut?: (() => void) | undefined;
}

function MeasureFields({ atWork, check, phase, onSaved, onLeaveOut }: FieldsProps) {
  const { view, visit, unit, progress, now } = atWork;
  const units = usePreferences((preferences) => preferences.units);
  // What stays from one measurement to the next, of this visit or of the last.
  const before = progress.measured.findLast((one) => one.check === check.code)?.values;
  const [texts, setTexts] = useState<CheckTexts>(() =>
    stayingTexts(check.fields, before ?? view.lastValues[check.code], units),
  );
  const judged = useJudged(check, texts, {
    unit: unit.plate,
    site: { timeZone: visit.timeZone, altitudeM: visit.altitudeM ?? undefined },
    at: now,
    baseline: view.baselines[check.code],
  });
  const { judgement } = judged;
  const save = async () => {
    await atWork.record(
      { kind: 'measure', phase, check: check.code, values: judged.values },
      { outcome: outcomeOf(judgement!), text: `Measured: ${check.name}` },
    );
    onSaved();
  };
  return (
    <Box
      component="form"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        if (judgement) void save();
      }}
      sx={{ display: 'flex', flexDirection: 'column', gap: 1, mt: 0.5 }}
    >
      <JudgedFields check={check} judged={judged} texts={texts} onTexts={setTexts} plate={unit.plate} />
      <Stack direction="row" sx={{ gap: 1 }}>
        <Button type="submit" variant="contained" disabled={!judgement} sx={{ minHeight: 44 }}>
          Save
        </Button>
        {onLeaveOut && (
          <Button onClick={onLeaveOut} sx={{ minHeight: 44 }}>
            Skip
          </Button>
        )}
      </Stack>
    </Box>
  );
}
