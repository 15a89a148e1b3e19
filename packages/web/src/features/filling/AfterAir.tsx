import { Alert, Box, Button, Stack, Typography } from '@mui/material';
import { RecordFill, type FillableCylinderView, type FillingView, type FillView } from '@entretien/contracts';
import { endFill, USUAL_AMBIENT_C } from '@entretien/core/filling';
import { sentenceOf } from '../../data/api.js';
import { usePostOrKeep } from '../../data/queries.js';
import { QuantityField } from '../../components/QuantityField.js';
import { useFormatQuantity } from '../../components/use-format-quantity.js';
import { readCo, type FillDraft } from './draft.js';

interface AfterAirProps {
  readonly filling: FillingView;
  readonly cylinder: FillableCylinderView;
  readonly draft: FillDraft;
  readonly put: (changes: Partial<FillDraft>) => void;
  readonly onSaved: () => void;
  readonly onEnd: () => void;
}

/** Closed, vented, taken off: what it shows, what it will settle at, and into the log. */
export function AfterAir({ filling, cylinder, draft, put, onSaved, onEnd }: AfterAirProps) {
  const format = useFormatQuantity();
  // The cylinder is full, connection or not: it goes on, and the fill is sent later.
  const save = usePostOrKeep<RecordFill, FillView>(RecordFill, `/compressors/${filling.compressorId}/fills`, {
    tag: cylinder.tag,
    timeZone: filling.timeZone,
    text: `Filled from ${filling.set.plate.tag}`,
    page: `/units/${filling.compressorId}/fill`,
  });
  const { end, wall } = draft;
  const result =
    end.value === null || !cylinder.ratedBar || !cylinder.volumeL
      ? null
      : endFill({
          volumeL: cylinder.volumeL,
          ratedBar: cylinder.ratedBar,
          fromBar: draft.from.value!,
          toBar: end.value,
          wallC: wall.value,
          ambientC: USUAL_AMBIENT_C,
          atmosphereBarAbs: filling.atmosphereBarAbs,
          minutes: (draft.endedAt! - draft.startedAt!) / 60_000,
        });
  if (save.isSuccess) return <Saved fill={save.data} onEnd={onEnd} />;
  return (
    <Stack sx={{ gap: 1.5, mt: 2 }}>
      <Typography sx={{ fontWeight: 700, fontSize: '1.15rem' }}>
        Close the cylinder, vent, take off, cap
      </Typography>
      <QuantityField
        label="It shows"
        kind="pressure"
        entry={end}
        onEntry={(next) => put({ end: next })}
        min={0}
        max={1000}
        hint="As soon as it is closed."
      />
      <QuantityField
        label="Its wall, if it was felt or measured"
        kind="temperature"
        entry={wall}
        onEntry={(next) => put({ wall: next })}
        min={-30}
        max={150}
        hint="Hot, it settles lower."
      />
      <Box role="status" sx={{ minHeight: 28 }}>
        {result?.ok && (
          <Typography>
            Settles at <strong>{format(Math.round(result.value.settledBar), 'pressure')}</strong> when it is
            cold.
          </Typography>
        )}
      </Box>
      {result && !result.ok && <Alert severity="error">{result.problem.sentence}</Alert>}
      {save.error && <Alert severity="error">{sentenceOf(save.error)}</Alert>}
      <Stack direction="row" sx={{ gap: 1.5 }}>
        <Button color="inherit" onClick={onEnd} sx={{ minHeight: 60 }}>
          Delete
        </Button>
        <Button
          variant="contained"
          disabled={result?.ok !== true || save.isPending}
          onClick={() => void save.mutateAsync(bodyOf(draft)).then(onSaved, () => undefined)}
          sx={{ minHeight: 60, flex: 1, fontSize: '1.1rem' }}
        >
          Save
        </Button>
      </Stack>
    </Stack>
  );
}

function bodyOf(draft: FillDraft): RecordFill {
  const { id, vesselId, startedAt, endedAt, from, end, wall, connectorBar, looked, outcome, co } = draft;
  const coPpm = readCo(co);
  return {
    id,
    vesselId: vesselId!,
    startedAt: new Date(startedAt!).toISOString(),
    endedAt: new Date(endedAt!).toISOString(),
    fromBar: from.value!,
    toBar: end.value!,
    connectorBar: connectorBar!,
    looked: [...looked],
    outcome: outcome!,
    ...(wall.value === null ? {} : { wallC: wall.value }),
    ...(typeof coPpm === 'number' ? { coPpm } : {}),
  };
}

function Saved({ fill, onEnd }: { readonly fill: FillView | null; readonly onEnd: () => void }) {
  const format = useFormatQuantity();
  return (
    <Stack sx={{ gap: 1.5, mt: 2 }}>
      {fill === null ? (
        <Alert severity="info" role="status">
          There is no connection: the fill waits on this device, and goes into the log by itself.
        </Alert>
      ) : (
        <Alert severity={fill.doubts.length > 0 ? 'warning' : 'success'} role="status">
          {fill.tag} is in the log: settles at {format(Math.round(fill.settledBar), 'pressure')}.
          {fill.doubts.map(({ code, sentence }) => (
            <Box key={code} sx={{ fontWeight: 600 }}>
              {sentence}
            </Box>
          ))}
        </Alert>
      )}
      <Button variant="contained" onClick={onEnd} sx={{ minHeight: 60, fontSize: '1.1rem' }}>
        The next cylinder
      </Button>
    </Stack>
  );
}
