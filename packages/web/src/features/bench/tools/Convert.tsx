import { Alert, Box, Button, MenuItem, TextField, Typography } from '@mui/material';
import { ChangePlate, type PlateChangeView, type PlateDetails } from '@entretien/contracts';
import {
  formatFigure,
  formatQuantity,
  fromStored,
  parseQuantity,
  quantityDefinitions,
  unitByCode,
  unitsOf,
  type QuantityKind,
} from '@entretien/core/quantities';
import { useState } from 'react';
import { usePreferences } from '../../../data/preferences.js';
import { sentenceOf } from '../../../data/api.js';
import { usePost } from '../../../data/queries.js';
import { asTyped, withMeantUnit } from '../../../components/checks/implied-unit.js';
import { QuantityField } from '../../../components/QuantityField.js';
import { plateGroups } from '../../../components/plate-fields.js';
import { BenchFrame } from '../BenchFrame.js';
import { Answer, Figures } from '../parts.js';
import { TwoScales } from '../TwoScales.js';
import { useAttempt } from '../use-attempt.js';
import { useBenchAddress, type BenchAddress } from '../use-bench.js';

const kinds = Object.keys(quantityDefinitions) as QuantityKind[];

/** Any quantity of the trade in every unit it is quoted in. */
export function Convert() {
  const address = useBenchAddress();
  const { texts, setText, setTexts, atmosphereBarAbs } = address;
  const kind = kinds.find((one) => one === texts['kind']) ?? 'pressure';
  const chosen = usePreferences((preferences) => preferences.units[kind]);
  const readIn = unitByCode(kind, chosen);
  const text = asTyped(texts['figure'] ?? '', readIn);
  const parsed = text.trim() === '' ? null : parseQuantity(text, kind, { assumed: readIn });
  const value = parsed?.ok ? parsed.value.value : null;
  const problem =
    parsed && !parsed.ok ? parsed.problem.sentence : lowerThanNothing(kind, value, atmosphereBarAbs);
  const isFine = value !== null && problem === null;
  return (
    <BenchFrame
      title="Convert"
      address={address}
      inputs={
        <>
          <TextField
            select
            label="Quantity"
            size="small"
            value={kind}
            onChange={(event) => setTexts({ kind: event.target.value, figure: '' })}
          >
            {kinds.map((one) => (
              <MenuItem key={one} value={one}>
                {quantityDefinitions[one].name}
              </MenuItem>
            ))}
          </TextField>
          <QuantityField
            label="Figure with its unit"
            kind={kind}
            size="small"
            entry={{ text, value, problem: null }}
            onEntry={(entry) => setText('figure', withMeantUnit(entry.text, readIn))}
            problem={problem}
            hint={`Like 10 ${unitsOf(kind)[0].label}`}
          />
          {isFine && <PutOnPlate address={address} kind={kind} value={value} />}
        </>
      }
      formula={<p>Factors of NIST SP 811; a temperature difference converts without the offset.</p>}
    >
      <Answer
        sentence={
          isFine
            ? describeInOther(value, kind, parsed!.ok ? parsed!.value.unit.label : '')
            : (problem ?? 'Type a figure with its unit.')
        }
        detail={isFine ? undefined : 'Like 145 psi, 12 cfm, 100 °F.'}
      />
      {isFine && (
        <>
          <Figures
            items={unitsOf(kind).map((unit) => ({
              name: unit.code,
              value: formatFigure(fromStored(value, kind, unit), { figures: 5, maxDecimals: 4 }),
              unit: unit.label,
            }))}
          />
          <TwoScales kind={kind} value={value} typed={parsed!.ok ? parsed!.value.unit.label : ''} />
          <Warning kind={kind} value={value} atmosphereBarAbs={atmosphereBarAbs} />
        </>
      )}
    </BenchFrame>
  );
}

function lowerThanNothing(kind: QuantityKind, value: number | null, atmosphereBarAbs: number): string | null {
  if (kind !== 'pressure' || value === null || value >= -atmosphereBarAbs) return null;
  return 'That is less than a vacuum: no gauge can show it.';
}

function describeInOther(value: number, kind: QuantityKind, typed: string): string {
  const other = unitsOf(kind).find(({ label }) => label !== typed) ?? unitsOf(kind)[0];
  const from = unitsOf(kind).find(({ label }) => label === typed) ?? unitsOf(kind)[0];
  const write = (unit: typeof other) => {
    const shown = formatQuantity(value, kind, unit, { figures: 4 });
    return `${shown.figure} ${shown.unit}`;
  };
  return `${write(from)} are ${write(other)}.`;
}

/** What is mixed up with it. */
function Warning({
  kind,
  value,
  atmosphereBarAbs,
}: {
  readonly kind: QuantityKind;
  readonly value: number;
  readonly atmosphereBarAbs: number;
}) {
  if (kind === 'pressure') {
    const absolute = formatFigure(value + atmosphereBarAbs, { maxDecimals: 2 });
    return (
      <Alert severity="warning" variant="outlined" sx={{ mt: 2 }}>
        By the gauge. With the air about it that is {absolute} bar absolute: formulas take the absolute one.
      </Alert>
    );
  }
  if (kind === 'flow') {
    return (
      <Alert severity="warning" variant="outlined" sx={{ mt: 2 }}>
        Is it displacement or free air delivered? A sound compressor delivers 40 to 95 % of its displacement:
        this as displacement would be {formatFigure(value * 0.4, { maxDecimals: 0 })} to{' '}
        {formatFigure(value * 0.95, { maxDecimals: 0 })} L/min delivered.
      </Alert>
    );
  }
  return null;
}

/** Puts the figure on the unit's data plate, as a dated change. */
function PutOnPlate({
  address,
  kind,
  value,
}: {
  readonly address: BenchAddress;
  readonly kind: QuantityKind;
  readonly value: number;
}) {
  const { unit } = address;
  const fields = plateGroups
    .flatMap((group) => group.fields)
    .filter((field) => field.as === 'quantity' && field.kind === kind);
  const [name, setName] = useState<keyof PlateDetails | ''>('');
  const attempt = useAttempt();
  const post = usePost<ChangePlate, PlateChangeView>(ChangePlate, `/compressors/${unit?.id ?? ''}/plate`);
  if (!unit || fields.length === 0) return null;
  const send = () => {
    const figure = Number(value.toPrecision(6));
    const { at, ids } = attempt(JSON.stringify([unit.id, name, figure]), 1);
    post.mutate({ id: ids[0]!, changedAt: at, [name]: figure });
  };
  return (
    <Box>
      <TextField
        select
        label={`On the plate of ${unit.tag} it is`}
        size="small"
        fullWidth
        value={name}
        onChange={(event) => {
          setName(event.target.value as keyof PlateDetails);
          post.reset();
        }}
      >
        {fields.map((field) => (
          <MenuItem key={field.name} value={field.name}>
            {field.label}
          </MenuItem>
        ))}
      </TextField>
      <Button
        variant="contained"
        sx={{ mt: 1, minHeight: 44 }}
        disabled={name === '' || post.isPending}
        onClick={send}
      >
        Save to {unit.tag}
      </Button>
      {post.isSuccess && (
        <Typography role="status" variant="body2" sx={{ mt: 0.5 }}>
          Saved to its data plate.
        </Typography>
      )}
      {post.isError && (
        <Alert severity="error" variant="outlined" sx={{ mt: 1 }}>
          {sentenceOf(post.error)}
        </Alert>
      )}
    </Box>
  );
}
