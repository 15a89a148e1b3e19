import { fromMeter, formatHoursSeen } from '@entretien/core/hours';
import type { StandingView } from '@entretien/contracts';
import { Alert, Box, Button, Stack, TextField, Typography } from '@mui/material';
import { DEFAULT_PERSON_ID } from '@entretien/contracts/light';
import { summaryOf, type Obstacle, type SummaryLine } from '@entretien/core/visit';
import { lazy, Suspense, useCallback, useState, type Dispatch, type SetStateAction } from 'react';
import { Link } from 'react-router';
import { useMay, useOwnAccount } from '../../data/me.js';
import { usePreferences } from '../../data/preferences.js';
import { usePeople } from '../../data/queries.js';
import { ActionAlert } from '../../components/ActionAlert.js';
import { nextPhase, type Phase } from './phases.js';
import { ReasonDialog } from './ReasonDialog.js';
import { SignaturePad } from './SignaturePad.js';
import { PhaseFooter, type PhaseProps } from './PhaseFooter.js';

/** Shown once it is signed: the drawing of codes is fetched for it. */
const ServiceTag = lazy(() =>
  import('../../components/ServiceTag.js').then((part) => ({ default: part.ServiceTag })),
);

type Signature = NonNullable<PhaseProps['atWork']['progress']['signed']>;

const lineColour: Readonly<Record<SummaryLine['about'], string>> = {
  done: 'text.primary',
  'not-done': 'brass',
  proof: 'slate',
  found: 'oxide',
  used: 'text.primary',
  warning: 'oxide',
};

/** Where what stands in the way of a signature is put right. */
function wayOut(code: Obstacle['code']): readonly [string, Phase] {
  if (code === 'nothing-done') return ['What you came for', 'prepare'];
  return code === 'unanswered' || code === 'no-reason' ? ['To the work', 'work'] : ['To the proof', 'prove'];
}

/** What a trainee reads in the place of the signature. */
function NotYours() {
  return (
    <Alert severity="info" variant="outlined" sx={{ mt: 1 }}>
      A technician signs for it: everything that was recorded is there for them.
    </Alert>
  );
}

/** What was done in plain words, the signature, and the tag that stays at the machine. */
export function SignPhase({ atWork, onGo }: PhaseProps) {
  const { progress, unit, view } = atWork;
  const { data: people } = usePeople();
  const personId = usePreferences((preferences) => preferences.personId) ?? DEFAULT_PERSON_ID;
  const [name, setName] = useState<string | null>(null);
  const [strokes, setStrokes] = useState('');
  const [informed, setInformed] = useState('');
  const [customer, setCustomer] = useState<{ readonly name: string; readonly strokes: string } | null>(null);
  const [isLeaving, setLeaving] = useState(false);
  const keepStrokes = useCallback((written: string) => setStrokes(written), []);
  const account = useOwnAccount();
  const maySign = useMay('sign');
  const shownName = account?.name ?? name ?? people?.find(({ id }) => id === personId)?.name ?? '';
  const { signed, left } = progress;
  // A stop that stands is signed for only as left out of service, and told.
  const stop = progress.obstacles.find(({ code }) => code === 'stop-stands');
  const obstacles = progress.obstacles.filter((one) => one !== stop);
  const isInformed = stop === undefined || informed.trim() !== '';
  const sign = () =>
    void atWork.record({
      kind: 'sign',
      name: shownName.trim(),
      ...(strokes === '' ? {} : { strokes }),
      ...(stop === undefined ? {} : { informed: informed.trim() }),
      ...(customer === null || customer.name.trim() === ''
        ? {}
        : {
            customer: customer.name.trim(),
            ...(customer.strokes === '' ? {} : { customerStrokes: customer.strokes }),
          }),
    });
  return (
    <>
      <Box component="section" aria-label="Summary">
        {summaryOf(unit, progress).map(({ about, sentence }, index) => (
          <Typography
            key={index}
            sx={{ color: lineColour[about], fontWeight: about === 'done' ? 650 : 450, py: 0.3 }}
          >
            {sentence}
          </Typography>
        ))}
      </Box>
      {signed ? (
        <Signed atWork={atWork} signed={signed} />
      ) : (
        <>
          {left && (
            <Alert severity="info" variant="outlined" sx={{ mt: 1 }}>
              Left for another day: {left.reason}
            </Alert>
          )}
          {obstacles.map(({ code, sentence }) => {
            const [way, place] = wayOut(code);
            return (
              <ActionAlert
                key={code}
                severity={code === 'proof-failed' ? 'error' : 'warning'}
                way={way}
                onGo={() => onGo(place)}
              >
                {sentence}
              </ActionAlert>
            );
          })}
          {stop && <LeftOut sentence={stop.sentence} informed={informed} onInformed={setInformed} />}
          {!maySign && <NotYours />}
          {obstacles.length === 0 && maySign && (
            <Stack sx={{ mt: 2, gap: 1.5 }}>
              <TextField
                label="Name"
                value={shownName}
                onChange={(event) => setName(event.target.value)}
                sx={{ maxWidth: 302 }}
                slotProps={{ htmlInput: { maxLength: 120, readOnly: account !== null } }}
              />
              <SignaturePad onStrokes={keepStrokes} />
              <CustomerSigns customer={customer} onCustomer={setCustomer} />
            </Stack>
          )}
        </>
      )}
      <Box sx={{ height: 16 }} />
      {!signed && (
        <PhaseFooter about={obstacles.length === 0 ? undefined : 'It stays open until then.'}>
          <Button
            variant="contained"
            disabled={obstacles.length > 0 || shownName.trim() === '' || !isInformed || !maySign}
            onClick={sign}
          >
            Sign for {view.tag}
          </Button>
          {obstacles.length > 0 && (
            <>
              <Button variant="outlined" onClick={() => onGo(nextPhase(atWork))}>
                Next
              </Button>
              {!left && (
                <Button color="inherit" onClick={() => setLeaving(true)}>
                  Leave it for another day
                </Button>
              )}
            </>
          )}
        </PhaseFooter>
      )}
      {isLeaving && (
        <ReasonDialog
          title={`Leave ${view.tag} for another day`}
          usual={['Part missing', 'No time left', 'The machine is needed']}
          submit="Leave it"
          onReason={(reason) => atWork.record({ kind: 'leave', reason })}
          onClose={() => setLeaving(false)}
        />
      )}
    </>
  );
}

/** It is signed for: its tag, and the papers that go with it. */
function Signed({ atWork, signed }: Pick<PhaseProps, 'atWork'> & { readonly signed: Signature }) {
  const { progress, view, visit } = atWork;
  const isWaiting = !view.steps.some(({ kind }) => kind === 'sign');
  return (
    <Box sx={{ mt: 2 }}>
      <Typography role="status" sx={{ fontWeight: 650, mb: 1 }}>
        Signed for by {signed.name}.{isWaiting ? ' It waits on this device for a connection.' : ''}
      </Typography>
      {isWaiting ? (
        <Typography sx={{ color: 'text.secondary', mb: 1 }}>
          Its tag is made when the signature has arrived: until then the days on it would be the old ones.
        </Typography>
      ) : (
        <Suspense fallback={null}>
          <ServiceTag
            compressorId={view.compressorId}
            tag={view.tag}
            description={`${view.description} · ${visit.siteName}`}
            standing={view.standing}
            doneBy={signed.name}
            doneAt={signed.at}
            hours={hoursSigned(view.standing, progress.hours)}
            timeZone={visit.timeZone}
          />
        </Suspense>
      )}
      <Stack direction="row" sx={{ gap: 1, my: 2, flexWrap: 'wrap' }}>
        <Button
          variant="contained"
          href={`/api/compressors/${view.compressorId}/tag.pdf`}
          target="_blank"
          sx={{ minHeight: 48 }}
        >
          {view.stops.length > 0 ? 'Print the red tag' : 'Print the tag'}
        </Button>
        <Button
          variant="outlined"
          href={`/api/visits/${visit.id}/report.pdf`}
          target="_blank"
          sx={{ minHeight: 48 }}
        >
          Report as PDF
        </Button>
        <Button component={Link} to={`/units/${view.compressorId}`} sx={{ minHeight: 48 }}>
          Open {view.tag}
        </Button>
      </Stack>
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        Look again in some days at what was opened: a joint or a plug can begin to weep.
      </Typography>
    </Box>
  );
}

interface CustomerSignsProps {
  readonly customer: { readonly name: string; readonly strokes: string } | null;
  readonly onCustomer: Dispatch<SetStateAction<CustomerSignsProps['customer']>>;
}

/** Whoever takes the machine over again can sign, too: it stands on the report beside the technician’s. */
function CustomerSigns({ customer, onCustomer }: CustomerSignsProps) {
  const keepStrokes = useCallback(
    (strokes: string) => onCustomer((before) => ({ name: before?.name ?? '', strokes })),
    [onCustomer],
  );
  if (customer === null) {
    return (
      <Button
        onClick={() => onCustomer({ name: '', strokes: '' })}
        sx={{ alignSelf: 'start', minHeight: 44, px: 0 }}
      >
        The customer signs, too
      </Button>
    );
  }
  return (
    <>
      <TextField
        label="Name of the customer"
        value={customer.name}
        onChange={(event) => onCustomer({ ...customer, name: event.target.value })}
        sx={{ maxWidth: 302 }}
        slotProps={{ htmlInput: { maxLength: 120 } }}
      />
      <SignaturePad onStrokes={keepStrokes} />
    </>
  );
}

interface LeftOutProps {
  readonly sentence: string;
  readonly informed: string;
  readonly onInformed: (name: string) => void;
}

/** A stop that stands is signed for only as left out of service, and told. */
function LeftOut({ sentence, informed, onInformed }: LeftOutProps) {
  return (
    <Box
      sx={{
        border: 2,
        borderColor: 'oxide',
        bgcolor: 'oxideGround',
        p: 1.5,
        mt: 2,
      }}
    >
      <Typography sx={{ fontWeight: 700, color: 'oxide' }}>{sentence}</Typography>
      <TextField
        label="Left out of service, told to"
        value={informed}
        onChange={(event) => onInformed(event.target.value)}
        fullWidth
        sx={{ mt: 1.25, maxWidth: 420, bgcolor: 'background.default' }}
        slotProps={{ htmlInput: { maxLength: 120 } }}
        helperText="Who runs it, and who hangs on it. The red tag goes on the machine."
      />
    </Box>
  );
}

/** Hours at the signature: as read, or said to be an estimate. */
function hoursSigned({ runHours, meter }: StandingView, read: number | null): string | null {
  if (read !== null) return formatHoursSeen(meter, fromMeter(meter, Math.round(read)), 'full');
  return runHours === null
    ? null
    : `about ${formatHoursSeen(meter, Math.round(runHours), 'full')} (estimated)`;
}
