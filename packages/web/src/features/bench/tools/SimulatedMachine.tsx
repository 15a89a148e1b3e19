import { Alert, Box, Button, MenuItem, TextField, Typography } from '@mui/material';
import { boardMachines } from '@entretien/core/simulator';
import { useState } from 'react';
import { MachineBoard } from '../../../components/board/MachineBoard.js';
import type { BoardFault } from '../../../components/board/board-messages.js';
import { useBoard } from '../../../components/board/use-board.js';
import { Caution } from '../../../components/Caution.js';
import { Choice } from '../../../components/Choices.js';
import { LoadingSkeleton } from '../../../components/States.js';
import { BenchFrame } from '../BenchFrame.js';
import { useBenchAddress } from '../use-bench.js';

const paces = [
  ['0', 'Halted'],
  ['1', 'As it is'],
  ['10', '10 ×'],
  ['60', '60 ×'],
] as const;

/** How large a fault is, in words; the simulator counts from nothing to total. */
const sizes = [
  ['0.1', 'slight'],
  ['0.3', 'plain'],
  ['0.6', 'bad'],
  ['1', 'total'],
] as const;

/** Most faults that the address carries. */
const MOST_FAULTS = 6;

/** What is wrong, as the address writes it: `code*size` with a semicolon between. */
function faultsOf(text: string | undefined): Readonly<Record<string, number>> {
  const entries = (text ?? '')
    .split(';')
    .slice(0, MOST_FAULTS)
    .flatMap((one): [string, number][] => {
      const [code = '', size = ''] = one.split('*');
      const number = Number(size);
      return /^[a-z0-9-]{1,60}$/.test(code) && number > 0 && number <= 1 ? [[code, number]] : [];
    });
  return Object.fromEntries(entries);
}

const textOf = (faults: Readonly<Record<string, number>>) =>
  Object.entries(faults)
    .map(([code, size]) => `${code}*${size}`)
    .join(';');

/** A machine to turn valves at and see gauges follow: one of six, or one that is looked after, as its plate has it. */
export function SimulatedMachine() {
  const address = useBenchAddress();
  const { texts, setText, unit } = address;
  const own = boardMachines.find(({ code }) => code === texts['machine']) ?? boardMachines[0]!;
  const pace = paces.some(([code]) => code === texts['pace']) ? texts['pace']! : '1';
  const wrong = faultsOf(texts['faults']);
  const [round, setRound] = useState(0);
  const { board, faults, hasFailed, ask } = useBoard(unit ?? own.plate, wrong, Number(pace), round);
  const setFault = (code: string, size: number) => {
    const { [code]: _before, ...rest } = wrong;
    setText('faults', textOf(size > 0 ? { ...rest, [code]: size } : rest));
    ask({ kind: 'fault', code, size });
  };
  return (
    <BenchFrame
      title="Simulated machine"
      address={address}
      inputs={
        <>
          {!unit && (
            <TextField
              select
              size="small"
              label="Machine"
              value={own.code}
              onChange={(event) => {
                setText('machine', event.target.value);
                setText('faults', '');
              }}
            >
              {boardMachines.map(({ code, name }) => (
                <MenuItem key={code} value={code} sx={{ minHeight: 44 }}>
                  {name}
                </MenuItem>
              ))}
            </TextField>
          )}
          <Choice name="Time" options={paces} value={pace} onChoose={(code) => setText('pace', code)} />
          <Faults faults={faults} wrong={wrong} onFault={setFault} />
          <Button variant="outlined" onClick={() => setRound(round + 1)} sx={{ minHeight: 44 }}>
            Begin again
          </Button>
        </>
      }
      formula={<Explained />}
    >
      <Caution text="A picture of a machine, not the machine: nothing that it shows proves anything at yours. There the isolation is gone through." />
      {hasFailed && <Alert severity="error">The simulation stopped. Begin again.</Alert>}
      {board ? <MachineBoard board={board} onAsk={ask} /> : <LoadingSkeleton lines={6} />}
    </BenchFrame>
  );
}

interface FaultsProps {
  readonly faults: readonly BoardFault[];
  readonly wrong: Readonly<Record<string, number>>;
  readonly onFault: (code: string, size: number) => void;
}

/** What is wrong with it: chosen from all that can be, with its size, and mended again. */
function Faults({ faults, wrong, onFault }: FaultsProps) {
  const set = faults.filter(({ code }) => (wrong[code] ?? 0) > 0);
  const others = faults.filter(({ code }) => !((wrong[code] ?? 0) > 0));
  const isFull = set.length >= MOST_FAULTS;
  return (
    <Box component="section" aria-label="What is wrong with it" sx={{ display: 'grid', gap: 1 }}>
      <TextField
        select
        size="small"
        label="Add a fault"
        value=""
        disabled={isFull || others.length === 0}
        helperText={isFull ? `${MOST_FAULTS} at once are the most.` : undefined}
        onChange={(event) => onFault(event.target.value, 0.3)}
      >
        {others.map(({ code, name }) => (
          <MenuItem key={code} value={code} sx={{ minHeight: 44, whiteSpace: 'normal' }}>
            {name}
          </MenuItem>
        ))}
      </TextField>
      {set.map(({ code, name }) => (
        <Box key={code} sx={{ borderTop: '1px solid var(--mui-palette-divider)', pt: 0.75 }}>
          <Typography variant="body2" sx={{ fontWeight: 650 }}>
            {name}
          </Typography>
          <Box
            role="group"
            aria-label={`How bad: ${name}`}
            sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5 }}
          >
            {sizes.map(([size, label]) => (
              <Button
                key={size}
                size="small"
                variant={Number(size) === wrong[code] ? 'contained' : 'text'}
                aria-pressed={Number(size) === wrong[code]}
                onClick={() => onFault(code, Number(size))}
                sx={{ minHeight: { xs: 44, md: 32 }, minWidth: 48, px: 1 }}
              >
                {label}
              </Button>
            ))}
            <Button
              size="small"
              onClick={() => onFault(code, 0)}
              sx={{ minHeight: { xs: 44, md: 32 }, ml: 'auto' }}
            >
              Mend
            </Button>
          </Box>
        </Box>
      ))}
    </Box>
  );
}

function Explained() {
  return (
    <>
      <p>
        Spaces of air joined by stages, valves, drains and coolers. Every gram of air and water and every
        joule is kept: what one space loses another gains. Air is real air (Lee and Kesler’s equation, as the
        other benches have it), water falls out where it is saturated, stages compress along a polytropic line
        (n ≈ 1.25) with their dead space, holes let through what a choked nozzle does.
      </p>
      <p>
        Figures that the plate does not give are usual ones (common practice). Single strokes, pulsations and
        the inside of a motor are not in it.
      </p>
    </>
  );
}
