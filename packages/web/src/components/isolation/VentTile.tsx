import { Box, Button, Stack, Typography } from '@mui/material';
import { placeKey, ZERO_BAR, type IsolationPoint, type Sign, type Tile } from '@entretien/core/isolation';
import { useState } from 'react';
import { emptyEntry, QuantityField } from '../QuantityField.js';
import { HoldButton } from './HoldButton.js';
import { Refused } from './Refused.js';
import { useRecording, type IsolationHere } from './use-recording.js';

interface VentProps {
  readonly here: IsolationHere;
  readonly point: IsolationPoint;
  readonly tile: Tile;
  readonly isOne: boolean;
}

const signNames: Readonly<Record<Sign, string>> = {
  vent: 'the vent is silent',
  needle: 'the needle fell',
  'second-opening': 'a second opening is silent',
  'second-gauge': 'a second gauge shows nothing',
  'seen-free': 'its bore is seen free',
  stood: 'it stood 10 min',
};

/** One space to be emptied: opened, it passes; silent, the needle fell. Every other answer keeps it shut. */
export function VentTile({ here, point, tile, isOne }: VentProps) {
  const recording = useRecording(here);
  const [isElse, setElse] = useState(false);
  const vent = here.fold.vents.get(placeKey(point.code, tile.code));
  const place = tile.code === '' ? {} : { tile: tile.code };
  const record = (answer: string, more: object = {}) => {
    const isTaken = recording.record({ step: point.code, ...place, answer, ...more });
    if (isTaken) setElse(false);
    return isTaken;
  };
  const name = isOne ? point.name : `${point.name}: ${tile.name}`;
  const found = (text: string) => here.onFound(`${name}: ${text}`);
  const isPassing = vent !== undefined && vent.hasPassed && vent.silentAt === null && vent.against === null;
  const wantsMore = vent !== undefined && (vent.silentAt !== null || vent.against !== null);
  return (
    <Box
      component="section"
      aria-label={isOne ? undefined : tile.name}
      sx={{ mb: 1.5, ...(isOne ? {} : { border: 1, borderColor: 'divider', borderRadius: 1, p: 1.25 }) }}
    >
      {!isOne && <Typography variant="h3">{tile.name}</Typography>}
      {(vent?.pressureBar ?? 0) > ZERO_BAR && (
        <Typography sx={{ color: 'oxide', fontWeight: 700, fontSize: '1.15rem' }}>
          The needle shows {vent?.pressureBar} bar.
        </Typography>
      )}
      {wantsMore ? (
        <MoreSigns point={point} vent={vent} record={record} />
      ) : (
        <Stack sx={{ gap: 1 }}>
          {isPassing ? (
            <HoldButton
              fullWidth
              onHeld={() => record('silent', { needle: point.gauge === undefined ? 'none' : 'fell' })}
            >
              {point.gauge === undefined
                ? 'Hold: silent, it stays open'
                : `Hold: silent, ${point.gauge} fell to rest`}
            </HoldButton>
          ) : (
            <HoldButton fullWidth onHeld={() => record('passes')}>
              Hold: opened, it passes
            </HoldButton>
          )}
        </Stack>
      )}
      <Refused recording={recording} />
      <Button onClick={() => setElse(!isElse)} aria-expanded={isElse} sx={{ minHeight: 48 }}>
        {isElse ? 'Back' : 'It is otherwise'}
      </Button>
      {isElse && <Otherwise point={point} isPassing={isPassing} record={record} found={found} />}
    </Box>
  );
}

type RecordAnswer = (answer: string, more?: object) => boolean;

/** What there is so far, and what else can show it. */
function MoreSigns({
  point,
  vent,
  record,
}: {
  readonly point: IsolationPoint;
  readonly vent: NonNullable<ReturnType<IsolationHere['fold']['vents']['get']>>;
  readonly record: RecordAnswer;
}) {
  const isFed = vent.against === 'keeps-coming' || vent.against === 'is-fed';
  if (isFed) {
    return (
      <>
        <Typography role="alert" sx={{ color: 'oxide', fontWeight: 650, mb: 1 }}>
          It is being fed. Find by what, shut that off and tag it; then let this pass again.
        </Typography>
        <HoldButton fullWidth onHeld={() => record('passes')}>
          Hold: opened again, it passes
        </HoldButton>
      </>
    );
  }
  const needle = point.gauge === undefined ? 'none' : 'stood';
  const ways: readonly (readonly [string, string, boolean])[] = [
    ['second-opening', 'a second opening on it is open, and silent', true],
    ['second-gauge', 'a second gauge on it shows nothing', true],
    ['let-in', 'a little air let in passes, and stops', vent.against === null],
    ['seen-free', 'its bore is seen free, from the side', !point.isHigh],
    ['stood', 'it stood 10 min after all else was silent', !point.isHigh && point.emptiesInto !== undefined],
  ];
  return (
    <>
      <Typography sx={{ fontWeight: 650, mb: 0.5 }}>
        {vent.signs.length === 0
          ? 'Nothing shows yet that it is empty: it stays shut.'
          : `So far: ${vent.signs.map((sign) => signNames[sign]).join(', ')}. One sign more:`}
      </Typography>
      <Stack sx={{ gap: 1 }}>
        {ways.flatMap(([answer, text, isOffered]) =>
          isOffered && !vent.signs.includes(answer as Sign)
            ? [
                <HoldButton
                  key={answer}
                  fullWidth
                  variant="outlined"
                  onHeld={() =>
                    record(answer, { needle: answer === 'let-in' && needle === 'stood' ? 'fell' : needle })
                  }
                  sx={{ minHeight: 60 }}
                >
                  Hold: {text}
                </HoldButton>,
              ]
            : [],
        )}
      </Stack>
    </>
  );
}

interface OtherwiseProps {
  readonly point: IsolationPoint;
  readonly isPassing: boolean;
  readonly record: RecordAnswer;
  readonly found: (text: string) => void;
}

/** Answers that are not yes: each keeps the space shut, opens a finding, and says the next safe way. */
function Otherwise({ point, isPassing, record, found }: OtherwiseProps) {
  const [entry, setEntry] = useState(emptyEntry);
  const large = { minHeight: 56, justifyContent: 'start', textAlign: 'left' } as const;
  const keep = (answer: string, text: string) => {
    if (record(answer, { needle: 'none' })) found(text);
  };
  return (
    <Stack sx={{ gap: 1, mt: 0.5 }}>
      {!isPassing && (
        <Button variant="outlined" onClick={() => record('found-empty', { needle: 'stood' })} sx={large}>
          Nothing came, and nothing was in it: it was found empty
        </Button>
      )}
      <Button
        variant="outlined"
        color="error"
        onClick={() => keep('nothing', 'the vent passes nothing')}
        sx={large}
      >
        Nothing came at all, though there was pressure
      </Button>
      <Button
        variant="outlined"
        color="error"
        onClick={() => keep('keeps-coming', 'it does not fall silent')}
        sx={large}
      >
        It keeps coming
      </Button>
      <Button
        variant="outlined"
        color="error"
        onClick={() => keep('stuck', 'the vent will not move')}
        sx={large}
      >
        The valve will not move
      </Button>
      <Button variant="outlined" onClick={() => record('no-such-vent', { needle: 'none' })} sx={large}>
        There is no such vent here
      </Button>
      {isPassing && point.gauge !== undefined && (
        <>
          <Button variant="outlined" onClick={() => record('silent', { needle: 'stood' })} sx={large}>
            Silent; but the needle stood at zero beforehand
          </Button>
          <Stack
            direction="row"
            component="form"
            noValidate
            sx={{ gap: 1, alignItems: 'start' }}
            onSubmit={(event) => {
              event.preventDefault();
              if (entry.value === null) return;
              const needle = entry.value <= ZERO_BAR ? 'fell' : 'off';
              if (record('silent', { needle, pressureBar: entry.value }) && needle === 'off')
                found(`the needle rests at ${entry.value} bar on a silent vent`);
            }}
          >
            <QuantityField
              kind="pressure"
              label="Silent; but it shows"
              entry={entry}
              onEntry={setEntry}
              min={0}
              max={1000}
              size="small"
              sx={{ width: 190 }}
            />
            <Button type="submit" variant="outlined" disabled={entry.value === null} sx={{ minHeight: 44 }}>
              Save
            </Button>
          </Stack>
        </>
      )}
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        Each of these keeps it shut. Never loosen a joint to vent. The next way is another opening on the same
        space; then the maker, or a licensed firm.
      </Typography>
    </Stack>
  );
}
