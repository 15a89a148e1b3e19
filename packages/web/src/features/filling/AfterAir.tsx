import { Alert, Box, Button, Stack, Typography } from '@mui/material';
import { RecordFill, type FillableCylinderView, type FillingView, type FillView } from '@entretien/contracts';
import { endFill, USUAL_AMBIENT_C } from '@entretien/core/filling';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { postJson, sentenceOf, Unreachable } from '../../data/api.js';
import { keepFact } from '../../data/outbox/keep-fact.js';
import { refuseMalformed } from '../../data/refuse-malformed.js';
import { usePreferences } from '../../data/preferences.js';
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
  const client = useQueryClient();
  const personId = usePreferences((preferences) => preferences.personId);
  const save = useMutation({
    mutationFn: async () => {
      const body = bodyOf(draft);
      refuseMalformed(RecordFill, body);
      const path = `/compressors/${filling.compressorId}/fills`;
      try {
        return await postJson<FillView>(path, body, personId);
      } catch (error) {
        if (!(error instanceof Unreachable)) throw error;
        // The cylinder is full, connection or not: it goes on, and the fill is sent later.
        await keepFact(path, body, {
          tag: cylinder.tag,
          timeZone: filling.timeZone,
          text: `Filled from ${filling.set.plate.tag}`,
          page: `/units/${filling.compressorId}/fill`,
        });
        return null;
      }
    },
    onSuccess: () => {
      onSaved();
      return client.invalidateQueries({ queryKey: ['filling'] });
    },
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
          onClick={() => save.mutate()}
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
