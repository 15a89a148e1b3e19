import { Box, Button, Stack, TextField, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material';
import {
  connectorBars,
  fillLooks,
  MOST_BAR_A_MINUTE,
  type FillForecast,
  type FillLook,
} from '@entretien/core/filling';
import { isBreathed } from '@entretien/core/machine';
import { formatFigure } from '@entretien/core/quantities';
import { currentInstant } from '../../data/clock.js';
import { Caution } from '../../components/Caution.js';
import { entryOf, QuantityField } from '../../components/QuantityField.js';
import { Tick } from '../../components/Tick.js';
import { TickRow } from '../../components/TickRow.js';
import { useFormatQuantity } from '../../components/use-format-quantity.js';
import { readCo } from './draft.js';
import type { GuidedFillProps } from './GuidedFill.js';

interface BeforeAirProps extends Pick<GuidedFillProps, 'filling' | 'draft' | 'put'> {
  readonly aim: number;
  readonly expected: FillForecast | null;
  readonly isRefused: boolean;
}

/** Everything that is looked at before air flows, each for itself. */
export function BeforeAir({ filling, draft, put, aim, expected, isRefused }: BeforeAirProps) {
  const format = useFormatQuantity();
  const { maintainingValveBar, stopsBy } = filling.set.plate;
  const toggle = (look: FillLook) =>
    put({
      looked: draft.looked.includes(look)
        ? draft.looked.filter((one) => one !== look)
        : [...draft.looked, look],
    });
  const isCoRead = !isBreathed(filling.set.plate) || typeof readCo(draft.co) === 'number';
  const isLooked = isCoRead && fillLooks.every((look) => draft.looked.includes(look));
  const fromBar = draft.from.value;
  const held = maintainingValveBar
    ? `Pressure built up to ${format(maintainingValveBar, 'pressure')}`
    : 'Pressure built up until the holding valve lets it through';
  return (
    <>
      <Stack direction="row" sx={{ gap: 1.5, my: 2 }}>
        <QuantityField
          label="It shows now"
          kind="pressure"
          entry={draft.from}
          onEntry={(from) => put({ from })}
          min={0}
          max={1000}
          sx={{ flex: 1 }}
        />
        <QuantityField
          label="Stop at"
          kind="pressure"
          entry={draft.aim.text === '' ? entryOf(aim, 'pressure') : draft.aim}
          onEntry={(next) => put({ aim: next })}
          min={1}
          max={1000}
          sx={{ flex: 1 }}
        />
      </Stack>
      {isBreathed(filling.set.plate) && (
        <TextField
          fullWidth
          label="The CO monitor shows, ppm"
          value={draft.co}
          onChange={(event) => put({ co: event.target.value })}
          error={readCo(draft.co) === undefined}
          helperText={
            readCo(draft.co) === undefined
              ? 'A figure, like 1 or 0.5.'
              : 'Running warm, before the cylinder is opened.'
          }
          slotProps={{ htmlInput: { inputMode: 'decimal', maxLength: 5, autoComplete: 'off' } }}
        />
      )}
      <TickRow
        edge="top"
        isOn={draft.looked.includes('valve')}
        onPress={() => toggle('valve')}
        title="Cylinder and valve are sound"
        hint="no fire mark, no dent or cut, thread clean, nothing loose in it"
      />
      <Connector draft={draft} put={put} />
      <TickRow
        edge="top"
        isOn={draft.looked.includes('secured')}
        onPress={() => toggle('secured')}
        title="Secured, and nobody beside it"
        hint="it cannot fall; hoses lie where nobody walks"
      />
      <TickRow
        edge="top"
        isOn={draft.looked.includes('built-up')}
        onPress={() => toggle('built-up')}
        title={held}
        hint="it lets nothing through before; the gauge lags by half a minute"
      />
      <Caution text="Open the cylinder slowly. Stop at once at a smell, a hiss, or a wall too hot to hold." />
      <Typography role="status" sx={{ my: 1.5, minHeight: 24 }}>
        {expected !== null && expected.minutes !== null && expected.barPerMinute !== null && (
          <>
            About <strong>{formatFigure(expected.minutes, { decimals: 0 })} min</strong>
            {expected.barPerMinute > MOST_BAR_A_MINUTE
              ? `: this set would give it ${formatFigure(expected.barPerMinute, { decimals: 0 })} bar a minute. Throttle it, or fill two at once.`
              : `, ${formatFigure(expected.barPerMinute, { decimals: 0 })} bar a minute.`}
          </>
        )}
        {stopsBy === 'hand' && ' Nothing ends it by itself: stay with it.'}
      </Typography>
      <Button
        variant="contained"
        fullWidth
        disabled={isRefused || !isLooked || fromBar === null || draft.from.problem !== null}
        onClick={() => put({ startedAt: currentInstant() })}
        sx={{ minHeight: 60, fontSize: '1.1rem' }}
      >
        Air flows
      </Button>
    </>
  );
}

/** What it is marked with is read off it and said: that is the look. */
function Connector({ draft, put }: Pick<GuidedFillProps, 'draft' | 'put'>) {
  return (
    <Stack
      direction="row"
      sx={{ gap: 1.5, alignItems: 'center', minHeight: 64, borderTop: 1, borderColor: 'divider', py: 1 }}
    >
      <Tick on={draft.connectorBar !== null} />
      <Box sx={{ flex: 1 }}>
        <Typography sx={{ fontWeight: 650 }}>The connector is marked</Typography>
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          on by hand until it stops, no tool
        </Typography>
      </Box>
      <ToggleButtonGroup
        exclusive
        value={draft.connectorBar}
        aria-label="The connector is marked"
        onChange={(_event, connectorBar: number | null) =>
          put({
            connectorBar,
            looked: [
              ...draft.looked.filter((one) => one !== 'connector'),
              ...(connectorBar === null ? [] : (['connector'] as const)),
            ],
          })
        }
      >
        {connectorBars.map((one) => (
          <ToggleButton key={one} value={one} sx={{ minHeight: 48, minWidth: 72, textTransform: 'none' }}>
            {one} bar
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
    </Stack>
  );
}
