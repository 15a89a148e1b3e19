import { Box, Stack, Typography } from '@mui/material';
import { describeVerdict, type Verdict } from '@entretien/core/checks';

const look: Record<Verdict, { readonly colour: string; readonly ground: string; readonly bubble: number }> = {
  good: { colour: 'slate', ground: 'slateGround', bubble: 17 },
  watch: { colour: 'brass', ground: 'brassGround', bubble: 24 },
  act: { colour: 'oxide', ground: 'oxideGround', bubble: 29 },
  stop: { colour: 'oxide', ground: 'oxideGround', bubble: 17 },
};

/** A verdict as it is shown; with nothing to compare with none is given. */
interface Marked {
  readonly verdict: Verdict;
  readonly noComparison?: true | undefined;
}

/** The colour that goes with a verdict; never the only thing that tells it. */
export function verdictColour(verdict: Verdict): string {
  return look[verdict].colour;
}

export function verdictGround(verdict: Verdict): string {
  return look[verdict].ground;
}

/**
 * A verdict as the vial of a spirit level: the bubble between its lines is good, off them watch, at the end act;
 * a vial struck through is stop. A dashed vial without a bubble has nothing to compare with.
 */
export function Vial({ verdict, noComparison }: Marked) {
  const { bubble } = look[verdict];
  return (
    <svg width={34} height={14} viewBox="0 0 34 14" aria-hidden style={{ flex: 'none', display: 'block' }}>
      <rect
        x={0.75}
        y={0.75}
        width={32.5}
        height={12.5}
        rx={6.25}
        fill="none"
        stroke="currentColor"
        strokeWidth={1.5}
        strokeDasharray={noComparison ? '3 2' : undefined}
      />
      <path
        d="M12.5 1.5 V12.5 M21.5 1.5 V12.5"
        stroke="currentColor"
        strokeWidth={1.2}
        opacity={verdict === 'stop' ? 0 : 1}
      />
      {noComparison ? null : verdict === 'stop' ? (
        <path d="M5 7 H29" stroke="currentColor" strokeWidth={4.5} strokeLinecap="round" />
      ) : (
        <circle cx={bubble} cy={7} r={3.4} fill="currentColor" />
      )}
    </svg>
  );
}

/** Word and shape together. */
export function VerdictMark({ verdict, noComparison }: Marked) {
  return (
    <Stack
      component="span"
      direction="row"
      sx={{
        display: 'inline-flex',
        alignItems: 'center',
        gap: 0.75,
        color: noComparison ? 'text.secondary' : verdictColour(verdict),
        flex: 'none',
      }}
    >
      <Vial verdict={verdict} noComparison={noComparison} />
      <Typography component="span" variant="body2" sx={{ fontWeight: 700 }}>
        {describeVerdict({ verdict, noComparison })}
      </Typography>
    </Stack>
  );
}

/** A verdict with its reason, as the answer to what is typed. */
export function VerdictBand({
  verdict,
  noComparison,
  children,
}: Marked & { readonly children: React.ReactNode }) {
  return (
    <Box
      role="status"
      aria-label={`Verdict: ${describeVerdict({ verdict, noComparison })}`}
      sx={{
        bgcolor: noComparison ? 'transparent' : verdictGround(verdict),
        borderLeft: 4,
        borderColor: noComparison ? 'text.secondary' : verdictColour(verdict),
        px: 1.5,
        py: 1,
      }}
    >
      <VerdictMark verdict={verdict} noComparison={noComparison} />
      <Box sx={{ mt: 0.5 }}>{children}</Box>
    </Box>
  );
}
