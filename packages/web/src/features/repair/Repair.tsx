import { Box, Button, Link as MuiLink, Stack, TextField, Typography } from '@mui/material';
import type { AddRepairEntry, CompressorView, RepairEntryView, RepairView } from '@entretien/contracts';
import { formatMoment } from '@entretien/core/basics';
import { checkByCode, checksFor } from '@entretien/core/checks';
import { stationName } from '@entretien/core/machine';
import { openingsOf } from '@entretien/core/isolation';
import { checksThatProve, proceduresFor, stepsOn, type Procedure } from '@entretien/core/repairs';
import { useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { useCompressor, useMeasurements, useRepair, useSites } from '../../data/queries.js';
import { stayingTexts, type CheckTexts } from '../../components/checks/check-entries.js';
import { JudgedFields } from '../../components/checks/JudgedFields.js';
import { useJudged } from '../../components/checks/use-judged.js';
import { usePreferences } from '../../data/preferences.js';
import { formatDate } from '../../components/describe-due.js';
import { ErrorState, LoadingSkeleton } from '../../components/States.js';
import { SESSION } from '../../data/session.js';
import { StopBanner } from '../../components/stop/StopBanner.js';
import { ProblemLine } from '../../components/ProblemLine.js';
import { ManualsAtHand } from '../../components/papers/ManualsAtHand.js';
import { MinutesField, readMinutes } from './MinutesField.js';
import { PartUsed } from './PartUsed.js';
import { newFact, useAdd, useFactOnce } from './use-entry.js';
import { CauseNamed } from './CauseNamed.js';
import { SettingLoop } from './SettingLoop.js';
import { RepairEntries } from './RepairEntries.js';
import { GuideStep } from './GuideStep.js';
import { RepairIsolation } from '../../components/isolation/RepairIsolation.js';
import { EntryDialog } from './EntryDialog.js';
import { useNow } from '../../components/use-now.js';
import { toLocalText } from '../../components/WhenField.js';

const stateText: Readonly<Record<RepairView['state'], string>> = {
  found: 'found',
  'worked-on': 'not proved yet',
  'proof-failed': 'proof failed',
  proved: 'proved',
  closed: 'closed',
};

/** A fault from found to proved: its cause, the work, the parts, and the check that shows it helped. */
export function Repair() {
  const { repairId = '' } = useParams();
  const repair = useRepair(repairId);
  const unit = useCompressor(repair.data?.compressorId);
  const failed = repair.isError ? repair : unit.isError ? unit : null;
  return (
    <Box sx={{ px: { xs: 2, md: 3.5 }, pt: 2, pb: 4, maxWidth: 1600, width: '100%' }}>
      {failed ? (
        <ErrorState error={failed.error} onRetry={() => void failed.refetch()} />
      ) : repair.data && unit.data ? (
        <RepairPage repair={repair.data} unit={unit.data} />
      ) : (
        <LoadingSkeleton lines={8} />
      )}
    </Box>
  );
}

interface RepairProps {
  readonly repair: RepairView;
  readonly unit: CompressorView;
}

function RepairPage({ repair, unit }: RepairProps) {
  const now = useNow();
  const { data: sites } = useSites();
  const timeZone = sites?.find(({ id }) => id === unit.siteId)?.timeZone ?? 'UTC';
  return (
    <>
      <MuiLink
        component={Link}
        to={`/units/${unit.id}`}
        sx={{ fontWeight: 600, display: 'inline-flex', minHeight: 44, alignItems: 'center' }}
      >
        {unit.tag}
      </MuiLink>
      <Stack
        direction="row"
        sx={{
          columnGap: 2,
          rowGap: 1,
          mb: 0.5,
          alignItems: 'start',
          justifyContent: 'space-between',
          flexWrap: 'wrap',
        }}
      >
        <Typography variant="h1" sx={{ flex: '1 1 300px' }}>
          {repair.found}
        </Typography>
        <Button
          variant="outlined"
          href={`/api/repairs/${repair.id}/report.pdf`}
          target="_blank"
          sx={{ minHeight: 44, flex: 'none' }}
        >
          Report as PDF
        </Button>
      </Stack>
      <Typography sx={{ color: 'text.secondary', mb: 1.5 }}>
        {repair.kind === 'fault' ? 'Fault' : repair.kind === 'modification' ? 'Modification' : 'Improvement'}
        {repair.station ? ` · ${stationName(unit, repair.station)}` : ''} · found{' '}
        {formatDate(toLocalText(Date.parse(repair.foundAt), timeZone).slice(0, 10), now, timeZone)} ·{' '}
        <Box component="strong" sx={{ color: repair.isOpen ? 'oxide' : 'slate' }}>
          {stateText[repair.state]}
        </Box>
        {repair.minutes > 0 ? ` · ${repair.minutes} min of work` : ''}
      </Typography>
      <StopBanner compressorId={unit.id} timeZone={timeZone} />
      {repair.waitsFor && (
        <Typography role="status" sx={{ fontWeight: 650, mb: 1.5 }}>
          {repair.waitsFor}
        </Typography>
      )}
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: '1fr', md: 'minmax(0, 1fr) minmax(0, 1fr)' },
          columnGap: 5,
          rowGap: 3,
        }}
      >
        <Box>
          {repair.isOpen && repair.cause === null && (
            <WriteEntry repair={repair} kind="cause" label="What is the cause?" submit="Save the cause" />
          )}
          {repair.isOpen && (repair.cause === null || repair.state === 'proof-failed') && (
            <Button
              component={Link}
              to={`/units/${unit.id}/faults?repair=${repair.id}`}
              variant="outlined"
              sx={{ minHeight: 44, mb: 1.5 }}
            >
              Find the cause
            </Button>
          )}
          {repair.cause !== null && (
            <Typography sx={{ mb: 1 }}>
              <strong>Cause:</strong> {repair.cause}
            </Typography>
          )}
          <CauseNamed repair={repair} unit={unit} />
          {repair.isOpen && <WorkDone repair={repair} unit={unit} />}
          {repair.isOpen && <PartUsed repair={repair} unit={unit} />}
          <WriteEntry repair={repair} kind="note" label="Note" submit="Save" />
          <RepairEntries repair={repair} timeZone={timeZone} />
        </Box>
        <Box>
          {repair.isOpen && <Guide repair={repair} unit={unit} />}
          {repair.isOpen && <Prove repair={repair} unit={unit} />}
          {repair.isOpen && (
            <WriteEntry
              repair={repair}
              kind="close"
              label="Or close it without proof, because"
              submit="Close it"
            />
          )}
        </Box>
      </Box>
    </>
  );
}

/** Work that was done, and what it opened: that has to be isolated. */
function WorkDone({ repair, unit }: RepairProps) {
  const [opens, setOpens] = useState<string>('');
  return (
    <Box component="section" aria-label="Work" sx={{ mb: 2 }}>
      <TextField
        select
        label="What it opens"
        size="small"
        value={opens}
        onChange={(event) => setOpens(event.target.value)}
        fullWidth
        slotProps={{ select: { native: true }, inputLabel: { shrink: true } }}
        sx={{ mb: 1 }}
      >
        <option value="">Nothing: looked at, or running</option>
        {openingsOf(unit).map(({ code, name }) => (
          <option key={code} value={code}>
            {name}
          </option>
        ))}
      </TextField>
      {opens !== '' && <RepairIsolation repair={repair} unit={unit} opens={[opens]} />}
      <WriteEntry
        repair={repair}
        kind="work"
        label="Work done"
        submit="Save the work"
        hasMinutes
        more={{ opens: opens === '' ? [] : [opens] }}
      />
    </Box>
  );
}

interface WriteEntryProps {
  readonly repair: RepairView;
  readonly kind: 'cause' | 'work' | 'note' | 'close';
  readonly label: string;
  readonly submit: string;
  readonly hasMinutes?: boolean;
  readonly more?: Partial<AddRepairEntry>;
}

/** Something said in words, with the minutes it took where that counts. */
function WriteEntry({ repair, kind, label, submit, hasMinutes = false, more = {} }: WriteEntryProps) {
  const [text, setText] = useState('');
  const [minutes, setMinutes] = useState('');
  const fact = useFactOnce();
  const add = useAdd(repair);
  const { isReadable, ...took } = readMinutes(minutes);
  const send = () =>
    add.mutate(
      {
        ...fact.made(),
        kind,
        text: text.trim(),
        session: SESSION,
        ...more,
        ...(hasMinutes ? took : {}),
      },
      {
        onSuccess: () => {
          setText('');
          setMinutes('');
          fact.forget();
        },
      },
    );
  return (
    <Box
      component="form"
      onSubmit={(event) => {
        event.preventDefault();
        if (text.trim() !== '' && isReadable) send();
      }}
      sx={{ mb: 1.5 }}
    >
      <Stack direction="row" sx={{ gap: 1, alignItems: 'start', flexWrap: { xs: 'wrap', sm: 'nowrap' } }}>
        <TextField
          label={label}
          size="small"
          fullWidth
          multiline
          value={text}
          onChange={(event) => setText(event.target.value)}
          slotProps={{ htmlInput: { maxLength: 2000 } }}
        />
        {hasMinutes && (
          <MinutesField size="small" text={minutes} onText={setMinutes} sx={{ width: 110, flex: 'none' }} />
        )}
        <Button
          type="submit"
          variant="outlined"
          disabled={text.trim() === '' || !isReadable || add.isPending}
          sx={{ minHeight: 44, flex: 'none' }}
        >
          {submit}
        </Button>
      </Stack>
      <ProblemLine error={add.error} />
    </Box>
  );
}

/** An overhaul in its order, each step gone through; cautions and torques where they belong. */
function Guide({ repair, unit }: RepairProps) {
  const [search, setSearch] = useSearchParams();
  const guides = proceduresFor(unit);
  const guide = guides.find(({ code }) => code === search.get('guide'));
  return (
    <Box component="section" aria-label="Guided overhaul" sx={{ mb: 3 }}>
      <Typography variant="h2">{guide ? guide.name : 'Guided overhauls'}</Typography>
      <Stack direction="row" sx={{ flexWrap: 'wrap', gap: 1, my: 1 }}>
        {guides.map(({ code, name }) => (
          <Button
            key={code}
            variant={guide?.code === code ? 'contained' : 'outlined'}
            onClick={() => setSearch(guide?.code === code ? {} : { guide: code }, { replace: true })}
            sx={{ minHeight: 44 }}
          >
            {name}
          </Button>
        ))}
      </Stack>
      {guide && (
        <>
          <ManualsAtHand compressorId={unit.id} />
          <RepairIsolation repair={repair} unit={unit} opens={guide.opens?.(unit) ?? null} />
          <Steps repair={repair} unit={unit} guide={guide} />
        </>
      )}
    </Box>
  );
}

function Steps({ repair, unit, guide }: RepairProps & { readonly guide: Procedure }) {
  const add = useAdd(repair);
  const gone = new Map(
    repair.entries.flatMap((entry) => (entry.kind === 'step' ? [[entry.text, entry]] : [])),
  );
  const [undone, setUndone] = useState<RepairEntryView | null>(null);
  return (
    <>
      <Typography variant="body2" sx={{ mb: 1 }}>
        {guide.renew.length > 0 && `Renewed every time: ${guide.renew.join(', ')}. `}The maker’s manual of
        this machine comes first.
      </Typography>
      <ProblemLine error={add.error} />
      {stepsOn(guide, unit).map((step) => {
        const text = `${guide.code}/${step.code}`;
        return (
          <GuideStep
            key={step.code}
            step={step}
            unit={unit}
            isGone={gone.has(text)}
            isSending={add.isPending}
            onGone={() => add.mutate({ ...newFact(), kind: 'step', text, session: SESSION })}
            onUndo={() => setUndone(gone.get(text)!)}
          />
        );
      })}
      {guide.code === 'relief-setting' && <SettingLoop repair={repair} unit={unit} of="relief" />}
      {guide.code === 'stop-setting' && <SettingLoop repair={repair} unit={unit} of="stop" />}
      {undone && <EntryDialog repair={repair} entry={undone} onClose={() => setUndone(null)} />}
    </>
  );
}

/** The check that shows whether it helped. */
function Prove({ repair, unit }: RepairProps) {
  const [search] = useSearchParams();
  const guide = proceduresFor(unit).find(({ code }) => code === search.get('guide'));
  const [chosen, setChosen] = useState<string | null>(null);
  const code = chosen ?? guide?.provedBy ?? null;
  const able = checksThatProve(repair.entries, repair.station ?? null, unit);
  const checks = checksFor(unit).filter((check) => able === null || able.includes(check.code));
  const { data: measurements } = useMeasurements(unit.id);
  return (
    <Box component="section" aria-label="Prove it" sx={{ mb: 3 }}>
      <Typography variant="h2" sx={{ mb: 1 }}>
        Prove it
      </Typography>
      <TextField
        select
        label="By this check"
        size="small"
        value={code ?? ''}
        onChange={(event) => setChosen(event.target.value)}
        fullWidth
        slotProps={{ select: { native: true }, inputLabel: { shrink: true } }}
        sx={{ mb: 1 }}
      >
        <option value="" />
        {checks.map((check) => (
          <option key={check.code} value={check.code}>
            {check.name}
          </option>
        ))}
      </TextField>
      {code !== null && code !== '' && measurements && (
        <VerificationFields key={code} repair={repair} unit={unit} code={code} measurements={measurements} />
      )}
    </Box>
  );
}

interface VerificationProps extends RepairProps {
  readonly code: string;
  readonly measurements: NonNullable<ReturnType<typeof useMeasurements>['data']>;
}

function VerificationFields({ repair, unit, code, measurements }: VerificationProps) {
  const check = checkByCode(code)!;
  const units = usePreferences((preferences) => preferences.units);
  const { data: sites } = useSites();
  const now = useNow();
  const earlier = measurements.filter((one) => one.check === code);
  const [texts, setTexts] = useState<CheckTexts>(() => stayingTexts(check.fields, earlier[0]?.values, units));
  const fact = useFactOnce();
  const add = useAdd(repair);
  const site = sites?.find(({ id }) => id === unit.siteId);
  const judged = useJudged(check, texts, { unit, site, at: now, earlier });
  return (
    <Stack
      component="form"
      noValidate
      sx={{ gap: 1 }}
      onSubmit={(event) => {
        event.preventDefault();
        if (!judged.judgement) return;
        const entry = {
          ...fact.made(),
          kind: 'proof' as const,
          text: check.name,
          check: code,
          values: { ...judged.values },
        };
        add.mutate(entry, { onSuccess: () => fact.forget() });
      }}
    >
      {earlier[0] && (
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          Before, {formatMoment(Date.parse(earlier[0].takenAt), site?.timeZone ?? 'UTC')}:{' '}
          {earlier[0].judgement.reason}
        </Typography>
      )}
      <JudgedFields check={check} judged={judged} texts={texts} onTexts={setTexts} plate={unit} />
      <ProblemLine error={add.error} />
      <Button
        type="submit"
        variant="contained"
        disabled={!judged.judgement || add.isPending}
        sx={{ minHeight: 44, alignSelf: 'start' }}
      >
        Save as the proof
      </Button>
    </Stack>
  );
}
