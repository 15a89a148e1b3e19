import { Box, Button, Typography } from '@mui/material';
import { answerText, faultTestByCode, type FindingView } from '@entretien/core/faults';
import type { SearchAnswer } from './searches.js';

interface GivenAnswersProps {
  readonly answers: readonly SearchAnswer[];
  readonly why: FindingView['why'];
  readonly onUndo: (test: string) => void;
}

/** What was answered, why it moved the odds, and the way to take it back. */
export function GivenAnswers({ answers, why, onUndo }: GivenAnswersProps) {
  if (answers.length === 0) return null;
  return (
    <Box component="section" aria-label="What was answered" sx={{ mt: 3 }}>
      <Typography variant="h2" sx={{ mb: 0.5 }}>
        What was answered
      </Typography>
      <Box component="ol" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {answers.map(({ test: code, answer, measurement }) => {
          const test = faultTestByCode(code);
          if (!test) return null;
          const text = answerText(test, answer) ?? 'Cannot tell';
          return (
            <Box
              component="li"
              key={code}
              sx={{
                display: 'flex',
                alignItems: 'center',
                gap: 1.5,
                borderTop: 1,
                borderColor: 'divider',
                py: 0.5,
              }}
            >
              <Box sx={{ flex: 1, minWidth: 0 }}>
                <Typography>
                  <Box component="span" sx={{ fontWeight: 650 }}>
                    {test.name}:
                  </Box>{' '}
                  {text}
                </Typography>
                <Typography variant="body2" sx={{ color: 'text.secondary' }}>
                  {measurement === undefined ? '' : 'From a measurement on record. '}
                  {why[code]}
                </Typography>
              </Box>
              <Button
                aria-label={`Undo: ${test.name}`}
                onClick={() => onUndo(code)}
                sx={{ minHeight: 44, flex: 'none' }}
              >
                Undo
              </Button>
            </Box>
          );
        })}
      </Box>
    </Box>
  );
}
