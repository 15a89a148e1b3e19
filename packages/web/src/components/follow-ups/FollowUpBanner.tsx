import { Box, Button, Link as MuiLink, Stack, Typography } from '@mui/material';
import { RecordFollowUp, type FollowUpLookView, type FollowUpView } from '@entretien/contracts';
import type { FollowUpFinding, FollowUpKind } from '@entretien/core/follow-ups';
import { formatFigure } from '@entretien/core/quantities';
import { useState } from 'react';
import { Link } from 'react-router';
import { v7 as newId } from 'uuid';
import { sentenceOf } from '../../data/api.js';
import { currentInstantText } from '../../data/clock.js';
import { useMay } from '../../data/me.js';
import { useFollowUpsOf, usePostOrKeep } from '../../data/queries.js';
import { formatDate } from '../describe-due.js';
import { useNow } from '../use-now.js';
import { toLocalText } from '../WhenField.js';

interface BannerProps {
  readonly compressorId: string;
}

const answers: Readonly<Record<FollowUpKind, Readonly<Record<FollowUpFinding, string>>>> = {
  joint: { sound: 'Dry and tight', 'not-sound': 'Not tight' },
  belt: { sound: 'Still right', 'not-sound': 'It has given' },
};

/** What to do about it, said before a spanner is taken up. */
const then: Readonly<Record<FollowUpKind, { text: string; link: string; tab: string }>> = {
  joint: {
    text: 'Nothing is tightened or loosened under pressure: isolate, vent, prove it empty, then tighten.',
    link: 'Record it as a fault',
    tab: 'repairs',
  },
  belt: {
    text: 'Locked out before the guard comes off: it may start by itself. Then tension it by its force.',
    link: 'Measure the belt',
    tab: 'checks&check=belt-deflection',
  },
};

/** What was opened or fitted here lately and is to be looked at again, with the two answers that there are. */
export function FollowUpBanner({ compressorId }: BannerProps) {
  const { data = [] } = useFollowUpsOf(compressorId);
  const [bad, setBad] = useState<FollowUpKind | null>(null);
  // What was told without a connection is not asked again meanwhile.
  const [told, setTold] = useState<readonly FollowUpKind[]>([]);
  const due = data.filter(({ state, kind }) => state !== 'coming' && !told.includes(kind));
  const mayWork = useMay('work');
  if (due.length === 0 && bad === null) return null;
  return (
    <Box
      component="section"
      aria-label="Look again"
      sx={{ borderLeft: 4, borderColor: 'brass', bgcolor: 'brassGround', px: 1.75, py: 1, mb: 1.5 }}
    >
      {due.map((one) => (
        <Question
          key={one.kind}
          followUp={one}
          mayAnswer={mayWork}
          onAnswer={(found) => {
            setTold([...told, one.kind]);
            setBad(found === 'not-sound' ? one.kind : null);
          }}
        />
      ))}
      {bad !== null && (
        <Typography role="status">
          On record. {then[bad].text}{' '}
          <MuiLink
            component={Link}
            to={`/units/${compressorId}?tab=${then[bad].tab}`}
            sx={{ fontWeight: 650, py: 1 }}
          >
            {then[bad].link}
          </MuiLink>
        </Typography>
      )}
    </Box>
  );
}

interface QuestionProps {
  readonly followUp: FollowUpView;
  readonly mayAnswer: boolean;
  readonly onAnswer: (found: FollowUpFinding) => void;
}

function Question({ followUp, mayAnswer, onAnswer }: QuestionProps) {
  const { compressorId, tag, timeZone, kind, text } = followUp;
  const [id] = useState(() => newId());
  const now = useNow();
  const post = usePostOrKeep<RecordFollowUp, FollowUpLookView>(
    RecordFollowUp,
    `/compressors/${compressorId}/follow-ups`,
    { tag, timeZone, text: 'Looked at again', page: `/units/${compressorId}` },
  );
  // Answered, the question is gone before the page has looked again: whoever holds it is told, not the question.
  const answer = (found: FollowUpFinding) =>
    void post.mutateAsync({ id, lookedAt: currentInstantText(), of: kind, found }).then(
      () => onAnswer(found),
      () => undefined,
    );
  return (
    <Box sx={{ '& + &': { borderTop: 1, borderColor: 'divider', pt: 1, mt: 1 } }}>
      <Typography sx={{ fontWeight: 650 }}>{text}</Typography>
      <Typography variant="body2">{describeSince(followUp, now)}</Typography>
      {mayAnswer && (
        <Stack direction="row" sx={{ gap: 1, mt: 1, flexWrap: 'wrap' }}>
          {(['sound', 'not-sound'] as const).map((found) => (
            <Button
              key={found}
              variant={found === 'sound' ? 'contained' : 'outlined'}
              disabled={post.isPending}
              onClick={() => answer(found)}
              sx={{ minHeight: 44 }}
            >
              {answers[kind][found]}
            </Button>
          ))}
        </Stack>
      )}
      {post.error && (
        <Typography role="alert" variant="body2" sx={{ color: 'error.main', mt: 0.5 }}>
          {sentenceOf(post.error)}
        </Typography>
      )}
    </Box>
  );
}

/** “Opened 12 Nov.” or “Fitted 12 Nov, 31 h of running since.” */
function describeSince(
  {
    kind,
    since,
    hoursSince,
    state,
    timeZone,
  }: Pick<FollowUpView, 'kind' | 'since' | 'hoursSince' | 'state' | 'timeZone'>,
  now: number,
): string {
  const day = formatDate(toLocalText(Date.parse(since), timeZone).slice(0, 10), now, timeZone);
  const run =
    hoursSince === null ? '' : `, ${formatFigure(hoursSince, { maxDecimals: 0 })} h of running since`;
  return `${kind === 'belt' ? 'Fitted' : 'Opened'} ${day}${run}.${state === 'late' ? ' It is late for that.' : ''}`;
}
