import { Alert, Box, Button, Typography } from '@mui/material';
import { formatFigure, formatQuantity, unitByCode } from '@entretien/core/quantities';
import type { Board, BoardHandle, BoardStation } from '@entretien/core/simulator';
import { usePreferences } from '../../data/preferences.js';
import { figureFont } from '../theme/theme.js';
import type { BoardRequest } from './board-messages.js';
import { StationGlyph } from '../air-path/glyphs.js';
import { DialGauge } from './DialGauge.js';

interface MachineBoardProps {
  readonly board: Board;
  /** The own lock is on: it does not switch on. */
  readonly isLocked?: boolean;
  readonly onAsk: (request: BoardRequest) => void;
}

/** A machine as a person beside it has it: its state, gauges and handles in the way of the air, what is heard. */
export function MachineBoard({ board, onAsk, isLocked = false }: MachineBoardProps) {
  return (
    <Box component="section" aria-label="The machine">
      <StateLine board={board} onAsk={onAsk} isLocked={isLocked} />
      <Box
        component="ul"
        aria-label="The way of the air"
        sx={{
          listStyle: 'none',
          m: 0,
          p: 0,
          display: 'grid',
          gridTemplateColumns: {
            xs: 'repeat(2, minmax(0, 1fr))',
            sm: 'repeat(auto-fill, minmax(168px, 1fr))',
          },
          borderTop: rule,
          borderLeft: rule,
        }}
      >
        {board.stations.map((station) => (
          <Station key={station.code} station={station} onAsk={onAsk} />
        ))}
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' }, columnGap: 3, mt: 2 }}>
        <Senses senses={board.senses} />
        <Temps board={board} />
      </Box>
    </Box>
  );
}

const rule = '1px solid var(--mui-palette-strongRule)';

function clockText(seconds: number): string {
  const two = (value: number) => String(Math.floor(value)).padStart(2, '0');
  return `${Math.floor(seconds / 3600)}:${two((seconds / 60) % 60)}:${two(seconds % 60)}`;
}

function StateLine({ board, onAsk, isLocked }: MachineBoardProps) {
  const press = (button: Extract<BoardRequest, { kind: 'press' }>['button']) => () =>
    onAsk({ kind: 'press', button });
  return (
    <Box sx={{ mb: 1.5 }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'baseline', columnGap: 2 }}>
        <Typography variant="h1" component="p" role="status" sx={{ fontSize: '1.4rem' }}>
          {board.state}
        </Typography>
        <Box sx={{ color: 'text.secondary', ...figureFont }}>
          <Box component="span" aria-label="Time since the beginning">
            {clockText(board.seconds)}
          </Box>
          {board.amps !== null && ` · ${formatFigure(board.amps, { decimals: 1 })} A`}
          {` · hours ${formatFigure(board.hours.total, { decimals: 2 })}, under load ${formatFigure(board.hours.loaded, { decimals: 2 })}`}
          {board.oilShare !== null && ` · oil ${Math.round(board.oilShare * 100)} % of its mark`}
        </Box>
      </Box>
      {board.trip !== null && (
        <Alert severity="error" sx={{ mt: 1 }} action={<Button onClick={press('reset')}>Reset</Button>}>
          {`It stopped by itself: ${board.trip}.`}
        </Alert>
      )}
      {isLocked ? (
        <Typography sx={{ mt: 1, fontWeight: 650 }}>Your lock is on it.</Typography>
      ) : (
        <Box role="group" aria-label="Switches" sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 1 }}>
          <Button variant="outlined" onClick={press(board.hasPower ? 'power-off' : 'power-on')} sx={large}>
            {board.hasPower ? 'Power off' : 'Power on'}
          </Button>
          <Button
            variant={board.isOn ? 'outlined' : 'contained'}
            onClick={press(board.isOn ? 'stop' : 'start')}
            sx={large}
          >
            {board.isOn ? 'Stop' : 'Start'}
          </Button>
        </Box>
      )}
    </Box>
  );
}

const large = { minHeight: 48, minWidth: 112 } as const;

function Station({
  station,
  onAsk,
}: {
  readonly station: BoardStation;
  readonly onAsk: MachineBoardProps['onAsk'];
}) {
  const units = usePreferences((preferences) => preferences.units);
  const { gauge, name, handles } = station;
  const inUnit = (bar: number) => formatQuantity(bar, 'pressure', unitByCode('pressure', units.pressure));
  const shown = gauge && inUnit(gauge.bar);
  return (
    <Box
      component="li"
      sx={{
        borderRight: rule,
        borderBottom: rule,
        p: 1.25,
        display: 'flex',
        flexDirection: 'column',
        gap: 1,
        minWidth: 0,
      }}
    >
      <DrawnStation code={station.code} />
      <Typography variant="h3" component="h2" sx={{ minHeight: '2.6em' }}>
        {name}
      </Typography>
      {gauge && shown ? (
        <DialGauge
          share={gauge.bar / gauge.fullScaleBar}
          figure={`${shown.figure} ${shown.unit}`}
          fullScale={inUnit(gauge.fullScaleBar).figure}
          name={name}
        />
      ) : (
        <Box sx={{ color: 'text.secondary', typography: 'body2', flex: 1 }}>No gauge here.</Box>
      )}
      <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1, mt: 'auto' }}>
        {handles.map((handle) => (
          <Handle
            key={handle.code}
            handle={handle}
            onTurn={() => onAsk({ kind: 'turn', code: handle.code, share: handle.isOpen ? 0 : 1 })}
          />
        ))}
      </Box>
    </Box>
  );
}

const [DRAWN_HIGH, LINE_AT] = [80, 38];

/** The air comes in from the left, through what is drawn, and goes on to the next. */
function DrawnStation({ code }: { readonly code: string }) {
  return (
    <Box
      component="svg"
      aria-hidden
      sx={{
        display: 'block',
        width: 'calc(100% + 20px)',
        height: DRAWN_HIGH,
        mx: '-10px',
        mt: -0.5,
        overflow: 'visible',
      }}
    >
      <line x1="0" x2="100%" y1={LINE_AT} y2={LINE_AT} stroke="currentColor" strokeWidth={1.6} />
      <Box component="svg" x="50%" y={LINE_AT} overflow="visible">
        <StationGlyph code={drawnAs(code)} vessel />
      </Box>
    </Box>
  );
}

/** How the spaces of the simulator are drawn. */
function drawnAs(space: string): string {
  if (space.startsWith('bank-')) return 'receiver';
  if (space.startsWith('stage-')) return `separator-${space.slice(-1)}`;
  return spaceGlyphs[space] ?? space;
}

const spaceGlyphs: Readonly<Record<string, string>> = {
  vessel: 'separator',
  'outlet-side': 'water-separator',
  network: 'outlet',
  hose: 'outlet',
  low: 'separator-1',
  high: 'separator-2',
  separator: 'water-separator',
  intercooler: 'intercooler-1',
  panel: 'fill',
};

/** A handle along its pipe is open, across it is shut. */
function Handle({
  handle: { name, isOpen },
  onTurn,
}: {
  readonly handle: BoardHandle;
  readonly onTurn: () => void;
}) {
  return (
    <Button
      variant="outlined"
      color="inherit"
      onClick={onTurn}
      aria-pressed={isOpen}
      sx={{ minHeight: 52, justifyContent: 'flex-start', gap: 1, px: 1, textAlign: 'left', lineHeight: 1.2 }}
    >
      <Box component="svg" viewBox="0 0 32 32" aria-hidden sx={{ width: 30, flexShrink: 0 }}>
        <line x1={1} y1={22} x2={31} y2={22} stroke="currentColor" strokeWidth={2} />
        <line
          x1={16}
          y1={22}
          x2={isOpen ? 30 : 16}
          y2={isOpen ? 22 : 5}
          stroke={isOpen ? 'var(--mui-palette-primary-main)' : 'currentColor'}
          strokeWidth={6}
          strokeLinecap="round"
        />
        <circle cx={16} cy={22} r={5} fill="currentColor" />
      </Box>
      <Box component="span">
        {name}
        <Box component="span" sx={{ display: 'block', fontWeight: 700 }}>
          {isOpen ? 'open' : 'shut'}
        </Box>
      </Box>
    </Button>
  );
}

function Senses({ senses }: Pick<Board, 'senses'>) {
  return (
    <Box component="section" aria-label="Heard, smelt and seen">
      <Typography variant="h3" component="h2">
        Heard, smelt and seen
      </Typography>
      {senses.length === 0 ? (
        <Typography variant="body2" sx={{ color: 'text.secondary', py: 0.75 }}>
          Nothing out of the way.
        </Typography>
      ) : (
        <Box component="ul" sx={plain}>
          {senses.map(({ code, place, text, plainness }) => (
            <Box component="li" key={code} sx={row}>
              <span>{`${place}: ${text}`}</span>
              <Box component="strong">{plainness}</Box>
            </Box>
          ))}
        </Box>
      )}
    </Box>
  );
}

function Temps({ board: { temps } }: { readonly board: Board }) {
  const units = usePreferences((preferences) => preferences.units);
  return (
    <Box component="section" aria-label="By thermometer">
      <Typography variant="h3" component="h2">
        By thermometer
      </Typography>
      <Box component="ul" sx={plain}>
        {temps.length === 0 && (
          <Box component="li" sx={{ color: 'text.secondary', py: 0.75, typography: 'body2' }}>
            The thermometer is in its box.
          </Box>
        )}
        {temps.map(({ code, name, tempC }) => {
          const { figure, unit } = formatQuantity(
            Math.round(tempC),
            'temperature',
            unitByCode('temperature', units.temperature),
          );
          return (
            <Box component="li" key={code} sx={row}>
              <span>{name}</span>
              <Box component="strong" sx={figureFont}>{`${figure} ${unit}`}</Box>
            </Box>
          );
        })}
      </Box>
    </Box>
  );
}

const plain = { listStyle: 'none', m: 0, p: 0 } as const;
const row = {
  display: 'flex',
  justifyContent: 'space-between',
  gap: 2,
  py: 0.75,
  borderBottom: '1px solid var(--mui-palette-divider)',
  typography: 'body2',
} as const;
