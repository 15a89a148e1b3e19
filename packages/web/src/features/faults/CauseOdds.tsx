import { Box, Typography } from '@mui/material';
import { causeData, type FindingView } from '@entretien/core/faults';
import { figureFont } from '../../components/theme/theme.js';

/** Odds in whole percent. */
export function percent(odds: number): string {
  return `${Math.round(100 * odds)}\u00a0%`;
}

/** So many are named; the rest are counted. */
const [NAMED, FROM] = [6, 0.02];

/** What it can be, the likeliest first, and how likely. */
export function CauseOdds({ odds, reasons }: Pick<FindingView, 'odds' | 'reasons'>) {
  const named = odds.filter(({ odds: one }, at) => at < NAMED && one >= FROM);
  const rest = odds.slice(named.length);
  const left = rest.reduce((sum, one) => sum + one.odds, 0);
  return (
    <Box component="section" aria-label="What it can be" sx={{ mt: 2 }}>
      <Typography variant="h2" sx={{ mb: 0.5 }}>
        What it can be
      </Typography>
      <Box component="ol" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {named.map(({ cause, odds: one }, at) => (
          <Row
            key={cause}
            name={causeData(cause).name}
            odds={one}
            isLeading={at === 0 || one >= 0.25}
            why={reasons.filter((reason) => reason.cause === cause).map(({ text }) => text)}
          />
        ))}
        {rest.length > 0 && (
          <Row
            name={rest.length === 1 ? causeData(rest[0]!.cause).name : `${rest.length} others`}
            odds={left}
            isLeading={false}
            why={[]}
          />
        )}
      </Box>
    </Box>
  );
}

interface RowProps {
  readonly name: string;
  readonly odds: number;
  readonly isLeading: boolean;
  readonly why: readonly string[];
}

function Row({ name, odds, isLeading, why }: RowProps) {
  return (
    <Box
      component="li"
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '1fr 3.5rem', sm: 'minmax(0, 1.1fr) minmax(0, 1fr) 3.5rem' },
        alignItems: 'center',
        columnGap: 2,
        borderTop: 1,
        borderColor: 'divider',
        py: 0.75,
        minHeight: 40,
      }}
    >
      <Box>
        <Typography sx={{ fontWeight: isLeading ? 650 : 400, lineHeight: 1.25 }}>{name}</Typography>
        {why.map((text) => (
          <Typography key={text} variant="caption" sx={{ display: 'block', color: 'text.secondary' }}>
            {text}
          </Typography>
        ))}
      </Box>
      <Box
        aria-hidden
        sx={{
          gridRow: { xs: 2, sm: 'auto' },
          gridColumn: { xs: '1 / -1', sm: 'auto' },
          height: { xs: 6, sm: 16 },
          mt: { xs: 0.5, sm: 0 },
          bgcolor: 'divider',
          borderRadius: 0.5,
        }}
      >
        <Box
          sx={{
            width: `${Math.min(100, Math.max(1, 100 * odds))}%`,
            height: '100%',
            bgcolor: isLeading ? 'brass' : 'slate',
            borderRadius: 0.5,
          }}
        />
      </Box>
      <Typography
        sx={{
          textAlign: 'right',
          fontFamily: figureFont,
          fontWeight: isLeading ? 700 : 500,
          gridRow: { xs: 1, sm: 'auto' },
          gridColumn: { xs: 2, sm: 'auto' },
        }}
      >
        {percent(odds)}
      </Typography>
    </Box>
  );
}
