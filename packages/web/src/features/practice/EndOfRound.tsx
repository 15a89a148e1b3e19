import { Box, Button, Typography } from '@mui/material';
import { ADVICE_MIN, PART_MIN, type EndView, type RoundView, type Score } from '@entretien/core/practice';
import type { ReactNode } from 'react';
import { Figure } from '../../components/Figure.js';
import { RoundLog } from './RoundLog.js';

interface EndOfRoundProps {
  readonly view: RoundView;
  readonly end: EndView;
  readonly onAgain: () => void;
  readonly onAnother: () => void;
}

/** How it ended, what it came to, and what the fault finder would have done. */
export function EndOfRound({ view, end, onAgain, onAnother }: EndOfRoundProps) {
  const { score, hidden, trap, finder } = end;
  return (
    <Box component="section" aria-label="How it ended">
      <Outcome end={end} />
      <Typography sx={{ mt: 1.5 }}>
        {hidden.length === 0 ? 'There was nothing wrong with it.' : `It was: ${hidden.join('; ')}.`}
      </Typography>
      <Typography sx={{ mt: 0.5, maxWidth: 760, color: 'text.secondary' }}>{trap}</Typography>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, my: 2 }}>
        <Button variant="contained" onClick={onAgain} sx={{ minHeight: 48 }}>
          Again, the same
        </Button>
        <Button variant="outlined" onClick={onAnother} sx={{ minHeight: 48 }}>
          Another draw
        </Button>
      </Box>
      <Box
        sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', md: '1fr 1fr' }, columnGap: 4, rowGap: 2 }}
      >
        <Column title="You">
          <Figures score={score} />
          {score.risks.length > 0 && (
            <>
              <Typography variant="h3">What was risked</Typography>
              <Box component="ul" sx={list}>
                {score.risks.map(({ text, minutes }) => (
                  <li key={text}>{`${text}: ${minutes}`}</li>
                ))}
              </Box>
            </>
          )}
          <RoundLog log={view.log} />
        </Column>
        <Column title="The fault finder">
          {finder === null ? (
            <Typography>Nothing to find.</Typography>
          ) : (
            <>
              <Box sx={{ display: 'flex', gap: 3, my: 1 }}>
                <Named name="All together" value={String(finder.minutes)} />
              </Box>
              <Typography variant="body2" sx={{ color: 'text.secondary' }}>
                {`With the same answers, nothing left out and nothing waited for. Parts count ${PART_MIN} minutes each, as yours do.`}
              </Typography>
              <Box component="ol" sx={{ ...list, listStyle: 'decimal' }}>
                {finder.steps.map((step) => (
                  <li key={step}>{step}</li>
                ))}
              </Box>
            </>
          )}
        </Column>
      </Box>
    </Box>
  );
}

const list = { pl: 3.25, m: 0, mt: 0.5, '& li': { py: 0.25 } } as const;

function Outcome({ end: { end, score } }: Pick<EndOfRoundProps, 'end'>) {
  switch (end.kind) {
    case 'accident':
      return (
        <Box role="alert" sx={{ borderLeft: 6, borderColor: 'error.main', pl: 2, py: 0.5, maxWidth: 860 }}>
          <Typography variant="h2" component="p" sx={{ color: 'error.main', fontSize: '1.4rem' }}>
            Somebody would be hurt now
          </Typography>
          <Typography sx={{ mt: 0.5 }}>{end.accident.happened}</Typography>
          <Typography variant="h3" component="p" sx={{ mt: 1.5 }}>
            The step that was left out
          </Typography>
          <Typography>{end.accident.leftOut}</Typography>
        </Box>
      );
    case 'mended':
      return (
        <Box role="status" sx={{ borderLeft: 6, borderColor: 'primary.main', pl: 2, py: 0.5, maxWidth: 860 }}>
          <Typography variant="h2" component="p" sx={{ fontSize: '1.4rem' }}>
            {`Mended and proved after ${score.minutes} min${score.over > 0 ? `, ${score.over} too late` : ''}`}
          </Typography>
          <Typography sx={{ mt: 0.5 }}>{end.text}</Typography>
          {end.missing.length > 0 && (
            <Typography sx={{ mt: 0.5 }}>{`Left undone: ${end.missing.join('; ')}.`}</Typography>
          )}
        </Box>
      );
    case 'given-up':
      return (
        <Typography role="status" variant="h2" component="p" sx={{ fontSize: '1.4rem' }}>
          Given up
        </Typography>
      );
  }
}

function Column({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <Box component="section" aria-label={title} sx={{ borderTop: 2, borderColor: 'strongRule', pt: 1 }}>
      <Typography variant="h2">{title}</Typography>
      {children}
    </Box>
  );
}

function Figures({ score }: { readonly score: Score }) {
  const { minutes, cost, parts, advices, risk, total } = score;
  const costOf = [
    ...(parts > 0 ? [`${parts} × part, ${PART_MIN} each`] : []),
    ...(advices > 0 ? [`${advices} × advice, ${ADVICE_MIN} each`] : []),
  ].join('; ');
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 3, rowGap: 1, my: 1 }}>
      <Named name="Clock" value={String(minutes)} />
      <Named name="Cost" value={String(cost)} note={costOf} />
      <Named name="Risk" value={String(risk)} />
      <Named name="All together" value={total === null ? '–' : String(total)} />
    </Box>
  );
}

interface NamedProps {
  readonly name: string;
  readonly value: string;
  readonly note?: string;
}

function Named({ name, value, note = '' }: NamedProps) {
  return (
    <Box>
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        {name}
      </Typography>
      <Figure value={value} {...(value === '–' ? {} : { unit: 'min' })} sx={{ fontSize: '1.5rem' }} />
      {note !== '' && (
        <Typography variant="caption" sx={{ display: 'block', color: 'text.secondary' }}>
          {note}
        </Typography>
      )}
    </Box>
  );
}
