import { Box, Typography } from '@mui/material';
import type { Verdict } from '@entretien/core/checks';
import { Suspense, type ReactNode } from 'react';
import { Figure } from '../../components/Figure.js';
import { LoadingSkeleton } from '../../components/States.js';
import { VerdictMark, verdictColour } from '../../components/VerdictMark.js';

interface AnswerProps {
  readonly sentence: string;
  readonly detail?: ReactNode;
  readonly verdict?: Verdict | undefined;
}

/** The answer of a bench, first of all. */
export function Answer({ sentence, detail, verdict }: AnswerProps) {
  return (
    <Box role="status" sx={{ mb: 1.5, minHeight: 52 }}>
      {verdict && <VerdictMark verdict={verdict} />}
      <Typography variant="h1" component="p" sx={{ fontSize: '1.4rem', lineHeight: 1.25 }}>
        {sentence}
      </Typography>
      {detail && <Box sx={{ color: 'text.secondary', mt: 0.25 }}>{detail}</Box>}
    </Box>
  );
}

/** Room for a picture that comes when its library has. */
export function Picture({
  height = 320,
  children,
}: {
  readonly height?: number;
  readonly children: ReactNode;
}) {
  return (
    <Box sx={{ height, mb: 1 }}>
      <Suspense fallback={<LoadingSkeleton lines={6} />}>{children}</Suspense>
    </Box>
  );
}

export interface BenchFigure {
  readonly name: string;
  readonly value: string;
  readonly unit?: string;
  readonly note?: string | undefined;
  readonly verdict?: Verdict;
}

/** The figures of an answer, large, side by side. */
export function Figures({ items }: { readonly items: readonly BenchFigure[] }) {
  return (
    <Box
      component="dl"
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: 'repeat(2, minmax(0, 1fr))', sm: 'repeat(auto-fill, minmax(150px, 1fr))' },
        columnGap: 2.5,
        rowGap: 1.5,
        m: 0,
      }}
    >
      {items.map(({ name, value, unit, note, verdict }) => (
        <Box key={name} sx={{ minWidth: 0 }}>
          <Typography component="dt" variant="body2" sx={{ color: 'text.secondary', lineHeight: 1.3 }}>
            {name}
          </Typography>
          <Box component="dd" sx={{ m: 0 }}>
            <Figure
              value={value}
              {...(unit === undefined ? {} : { unit })}
              sx={{ fontSize: '1.5rem', ...(verdict ? { color: verdictColour(verdict) } : {}) }}
            />
            {note && (
              <Typography
                variant="caption"
                sx={{ display: 'block', color: 'text.secondary', lineHeight: 1.3 }}
              >
                {note}
              </Typography>
            )}
          </Box>
        </Box>
      ))}
    </Box>
  );
}

/** A large number with its unit apart, from a text like "12.3 bar". */
export function figureOf(name: string, text: string, note?: string): BenchFigure {
  const gap = text.indexOf(' ');
  return gap < 0
    ? { name, value: text, note }
    : { name, value: text.slice(0, gap), unit: text.slice(gap + 1), note };
}
