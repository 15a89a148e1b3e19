import { Box, Button, Typography } from '@mui/material';
import { ADVICE_MIN, type PracticeAsk, type RoundView, type TestOffered } from '@entretien/core/practice';
import { useState } from 'react';
import { Choice } from '../../components/Choices.js';
import { GiveUp } from './GiveUp.js';

const groups = [
  ['senses', 'Look'],
  ['tools', 'Tool box'],
  ['opened', 'Open'],
  ['repairs', 'Mend'],
] as const;
type Group = (typeof groups)[number][0];

interface RoundActionsProps {
  readonly view: RoundView;
  readonly isBusy: boolean;
  readonly onAsk: (ask: PracticeAsk) => void;
}

/** What can be done at the machine beside its handles: each with the minutes that it takes. */
export function RoundActions({ view, isBusy, onAsk }: RoundActionsProps) {
  const [group, setGroup] = useState<Group>('senses');
  const { isLocked, acts, advice } = view;
  return (
    <Box sx={{ p: { xs: 2, md: 2.5 }, display: 'grid', gap: 1.5 }} aria-busy={isBusy}>
      <Box sx={{ display: 'grid', gap: 1, gridTemplateColumns: '1fr 1fr' }}>
        <Button
          variant={isLocked ? 'outlined' : 'contained'}
          disabled={isBusy}
          onClick={() => onAsk({ kind: isLocked ? 'unlock' : 'lock' })}
          sx={{ minHeight: 52, lineHeight: 1.2 }}
        >
          {isLocked ? 'Guards on, lock off' : 'Stop, and lock it'}
        </Button>
        <Button
          variant="outlined"
          disabled={isBusy}
          onClick={() => onAsk({ kind: 'prove' })}
          sx={{ minHeight: 52, lineHeight: 1.2 }}
        >
          Try and prove it
        </Button>
      </Box>
      {acts.length > 0 && (
        <Box component="section" aria-label="Here">
          <Typography variant="h2">Here</Typography>
          <Rows>
            {acts.map(({ code, name, minutes }) => (
              <Row
                key={code}
                name={name}
                more={minutes === 0 ? '' : `${minutes} min`}
                isBusy={isBusy}
                onDo={() => onAsk({ kind: 'act', code })}
              />
            ))}
          </Rows>
        </Box>
      )}
      <Box>
        <Choice name="By" options={groups} value={group} onChoose={(code) => setGroup(code as Group)} />
        <Rows>
          {group === 'repairs'
            ? view.repairs.map(({ cause, name, minutes, opens, outcome }) => (
                <Row
                  key={cause}
                  name={name}
                  more={moreOf(minutes, opens)}
                  outcome={outcome && { mended: 'Mended', sound: 'Was sound' }[outcome]}
                  isBusy={isBusy}
                  onDo={() => onAsk({ kind: 'repair', cause })}
                />
              ))
            : view.tests
                .filter((test) => test.group === group)
                .map((test) => <TestRow key={test.code} test={test} isBusy={isBusy} onAsk={onAsk} />)}
        </Rows>
      </Box>
      <Box component="section" aria-label="Fault finder">
        <Button
          variant="outlined"
          disabled={isBusy}
          onClick={() => onAsk({ kind: 'advise' })}
          sx={{ minHeight: 44 }}
        >
          {`Ask the fault finder: ${ADVICE_MIN} min`}
        </Button>
        {advice && <Typography sx={{ mt: 1 }}>{advice}</Typography>}
      </Box>
      <GiveUp onGiveUp={() => onAsk({ kind: 'give-up' })} />
    </Box>
  );
}

const moreOf = (minutes: number, opens: readonly string[]) =>
  [`${minutes} min`, ...(opens.length > 0 ? [`opens: ${opens.join(', ').toLowerCase()}`] : [])].join(' · ');

function Rows({ children }: { readonly children: React.ReactNode }) {
  return (
    <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0 }}>
      {children}
    </Box>
  );
}

interface TestRowProps {
  readonly test: TestOffered;
  readonly isBusy: boolean;
  readonly onAsk: (ask: PracticeAsk) => void;
}

function TestRow({ test, isBusy, onAsk }: TestRowProps) {
  const { code, name, minutes, tool, opens, answer, against, caution } = test;
  const more = [tool, moreOf(minutes, opens)].filter(Boolean).join(' · ');
  return (
    <Row
      name={name}
      more={against === null ? more : `${more} · ${against}`}
      hazard={answer === null ? caution : null}
      outcome={answer}
      isBusy={isBusy}
      onDo={() => onAsk({ kind: 'test', code })}
    />
  );
}

interface RowProps {
  readonly name: string;
  readonly more: string;
  readonly hazard?: string | null;
  /** What came of it; then it is done no more. */
  readonly outcome?: string | null;
  readonly isBusy: boolean;
  readonly onDo: () => void;
}

function Row({ name, more, hazard = null, outcome = null, isBusy, onDo }: RowProps) {
  const text = (
    <span>
      {name}
      <Box
        component="span"
        sx={{ display: 'block', color: 'text.secondary', typography: 'body2', fontWeight: 450 }}
      >
        {outcome === null ? (
          more
        ) : (
          <Box component="strong" sx={{ color: 'text.primary' }}>
            {outcome}
          </Box>
        )}
      </Box>
      {hazard !== null && (
        <Box component="span" sx={{ display: 'block', color: 'brass', typography: 'body2', fontWeight: 450 }}>
          {hazard}
        </Box>
      )}
    </span>
  );
  return (
    <Box component="li" sx={{ borderTop: 1, borderColor: 'divider' }}>
      {outcome === null ? (
        <Button
          color="inherit"
          disabled={isBusy}
          onClick={onDo}
          sx={{
            width: '100%',
            minHeight: 48,
            justifyContent: 'start',
            textAlign: 'left',
            lineHeight: 1.25,
            px: 0.5,
            py: 0.75,
          }}
        >
          {text}
        </Button>
      ) : (
        <Box sx={{ px: 0.5, py: 0.75, minHeight: 48, fontWeight: 600, lineHeight: 1.25 }}>{text}</Box>
      )}
    </Box>
  );
}
