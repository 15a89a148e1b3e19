import { Box, Button, Stack, Typography } from '@mui/material';
import { CANNOT_TELL, faultTestByCode, shortName, type Proposal } from '@entretien/core/faults';
import { Caution } from '../../components/Caution.js';
import { percent } from './CauseOdds.js';

const stateText = {
  run: 'running, guards on',
  lock: 'stopped and locked, nothing opened',
  open: 'isolated, vented and proved',
} as const;

interface NextTestProps {
  readonly proposal: Proposal;
  readonly isThinking: boolean;
  readonly onAnswer: (answer: string) => void;
}

/** The test that is proposed: what it takes, its hazard, and its answers, each with where it leads. */
export function NextTest({ proposal, isThinking, onAnswer }: NextTestProps) {
  const test = faultTestByCode(proposal.test)!;
  return (
    <Box component="section" aria-label="Next test" aria-busy={isThinking}>
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        Next test · {proposal.minutes} min · {stateText[proposal.state]}
      </Typography>
      <Typography variant="h2" sx={{ fontSize: '1.3rem', lineHeight: 1.25, mt: 0.5, mb: 1 }}>
        {test.question}
      </Typography>
      {test.caution !== undefined && <Caution text={test.caution} />}
      <Stack sx={{ gap: 1, mt: 1 }}>
        {proposal.leads.map(({ answer, text, cause, odds }) => (
          <AnswerButton
            key={answer}
            text={text}
            leads={`→ ${shortName(cause).toLowerCase()} ${percent(odds)}`}
            isDisabled={isThinking}
            onClick={() => onAnswer(answer)}
          />
        ))}
        <AnswerButton
          text="Cannot tell"
          leads="nothing moves"
          isDisabled={isThinking}
          isDashed
          onClick={() => onAnswer(CANNOT_TELL)}
        />
      </Stack>
    </Box>
  );
}

interface AnswerButtonProps {
  readonly text: string;
  readonly leads: string;
  readonly isDisabled: boolean;
  readonly isDashed?: boolean;
  readonly onClick: () => void;
}

function AnswerButton({ text, leads, isDisabled, isDashed = false, onClick }: AnswerButtonProps) {
  return (
    <Button
      variant="outlined"
      color="inherit"
      disabled={isDisabled}
      onClick={onClick}
      sx={{
        minHeight: 60,
        justifyContent: 'space-between',
        textAlign: 'left',
        gap: 2,
        lineHeight: 1.2,
        fontWeight: 650,
        fontSize: '1rem',
        borderColor: 'strongRule',
        borderStyle: isDashed ? 'dashed' : 'solid',
      }}
    >
      <span>{text}</span>
      <Box
        component="span"
        sx={{
          color: 'text.secondary',
          fontWeight: 450,
          fontSize: '0.85rem',
          textAlign: 'right',
          maxWidth: '48%',
        }}
      >
        {leads}
      </Box>
    </Button>
  );
}

interface WorthProps {
  readonly proposal: Proposal;
  readonly children: React.ReactNode;
}

/** What would tell more, in a state that the machine is not in: what it takes, and how it gets there. */
export function WorthChanging({ proposal, children }: WorthProps) {
  const test = faultTestByCode(proposal.test)!;
  const heading = {
    run: 'Worth starting it for',
    lock: 'Worth stopping and locking it for',
    open: 'Worth isolating for',
  }[proposal.state];
  return (
    <Box
      component="section"
      aria-label={heading}
      sx={{ borderTop: 1, borderColor: 'divider', mt: 2.5, pt: 1.5 }}
    >
      <Typography sx={{ fontWeight: 650 }}>{heading}</Typography>
      <Typography variant="body2" sx={{ color: 'text.secondary', mb: 1 }}>
        {test.name} · {proposal.minutes} min and {proposal.changing} to get there
      </Typography>
      {children}
    </Box>
  );
}
