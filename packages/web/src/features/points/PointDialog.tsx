import {
  Checkbox,
  FormControlLabel,
  FormGroup,
  FormLabel,
  MenuItem,
  TextField,
  Typography,
} from '@mui/material';
import { ChangePoint, RegisterPoint, type FleetCompressorView, type PointView } from '@entretien/contracts';
import { pointBounds } from '@entretien/core/points';
import { readNumber } from '@entretien/core/quantities';
import { useState } from 'react';
import { DayField } from '../../components/DayField.js';
import { FormDialog } from '../../components/FormDialog.js';
import { entryOf, QuantityField, type QuantityEntry } from '../../components/QuantityField.js';
import { useFactForm } from '../../components/use-fact-form.js';
import { useAllVessels, useFleet, useSites } from '../../data/queries.js';

interface PointDialogProps {
  /** The point that is put right; left out: a new one. */
  readonly point?: PointView;
  /** The unit from whose page one came. */
  readonly unitId?: string | null;
  readonly onClose: () => void;
}

interface Draft {
  readonly siteId: string;
  readonly tag: string;
  readonly place: string;
  readonly units: readonly string[];
  readonly vessels: readonly string[];
  readonly fittedOn: string;
  readonly whenAirGoes: string;
  readonly isBreathed: string;
  readonly rated: QuantityEntry;
  readonly micron: string;
  readonly bowl: string;
  readonly hasGuard: string;
  readonly drain: string;
  readonly months: string;
  readonly regulator: QuantityEntry;
  readonly isRelieving: string;
  readonly lubricator: string;
  readonly oil: string;
  readonly drops: string;
  readonly moreBy: string;
}

const yesNo = (value: boolean | null | undefined) => (value === true ? 'yes' : value === false ? 'no' : '');

function draftOf(point: PointView | undefined, siteId: string, unitId: string | null): Draft {
  return {
    siteId: point?.siteId ?? siteId,
    tag: point?.tag ?? '',
    place: point?.place ?? '',
    units: point?.compressorIds ?? (unitId === null ? [] : [unitId]),
    vessels: point?.vesselIds ?? [],
    fittedOn: point?.fittedOn ?? '',
    whenAirGoes: point?.whenAirGoes ?? '',
    isBreathed: yesNo(point?.isBreathed),
    rated: entryOf(point?.ratedBar, 'pressure'),
    micron: String(point?.filterMicron ?? ''),
    bowl: point?.bowl ?? '',
    hasGuard: yesNo(point?.hasGuard),
    drain: point?.drain ?? '',
    months: String(point?.elementEveryMonths ?? ''),
    regulator: entryOf(point?.regulatorBar, 'pressure'),
    isRelieving: yesNo(point?.isRelieving),
    lubricator: point?.lubricator ?? '',
    oil: point?.oil ?? '',
    drops: String(point?.dropsPerMinute ?? ''),
    moreBy: point?.moreBy ?? '',
  };
}

/** A figure as typed: null where there is none, undefined where it is none. */
function figure(text: string): number | null | undefined {
  if (text.trim() === '') return null;
  const read = readNumber(text);
  return read.ok && read.value >= 0 ? read.value : undefined;
}

const given = (text: string) => (text.trim() === '' ? null : text.trim());
const flag = (text: string) => (text === '' ? null : text === 'yes');

/** What is sent of a draft; null while something in it cannot be read. */
function contentOf(draft: Draft): Record<string, unknown> | null {
  const [micron, months, drops] = [figure(draft.micron), figure(draft.months), figure(draft.drops)];
  if (micron === undefined || months === undefined || drops === undefined) return null;
  const hasFilter = micron !== null;
  const hasRegulator = draft.regulator.value !== null;
  const hasLubricator = draft.lubricator !== '';
  return {
    tag: draft.tag.trim(),
    place: given(draft.place),
    compressorIds: draft.units,
    vesselIds: draft.vessels,
    whenAirGoes: draft.whenAirGoes.trim(),
    isBreathed: draft.isBreathed === 'yes',
    ratedBar: draft.rated.value,
    filterMicron: micron,
    bowl: hasFilter ? given(draft.bowl) : null,
    hasGuard: hasFilter ? flag(draft.hasGuard) : null,
    drain: hasFilter ? given(draft.drain) : null,
    elementEveryMonths: hasFilter ? months : null,
    regulatorBar: draft.regulator.value,
    isRelieving: hasRegulator ? flag(draft.isRelieving) : null,
    lubricator: given(draft.lubricator),
    oil: hasLubricator ? given(draft.oil) : null,
    dropsPerMinute: hasLubricator ? drops : null,
    moreBy: hasLubricator ? given(draft.moreBy) : null,
  };
}

/** Takes a point of use into the register, or puts right what is known of it. */
export function PointDialog({ point, unitId = null, onClose }: PointDialogProps) {
  const { units } = useFleet({ all: true });
  const { data: sites = [] } = useSites();
  const siteOf = units.find(({ compressorId }) => compressorId === unitId)?.siteId;
  const [typed, setTyped] = useState<Draft>(() => draftOf(point, '', unitId));
  const draft = { ...typed, siteId: typed.siteId || (siteOf ?? '') };
  const put = (changes: Partial<Draft>) => setTyped({ ...draft, ...changes });
  const zone = sites.find(({ id }) => id === draft.siteId)?.timeZone ?? 'UTC';
  const form = useFactForm<RegisterPoint | ChangePoint>(
    point ? ChangePoint : RegisterPoint,
    point ? `/points/${point.id}/changes` : '/points',
    zone,
    onClose,
  );
  const content = contentOf(draft);
  const isWhole =
    draft.tag.trim() !== '' &&
    draft.siteId !== '' &&
    draft.whenAirGoes.trim() !== '' &&
    draft.isBreathed !== '';
  const isRead = draft.rated.problem === null && draft.regulator.problem === null;
  return (
    <FormDialog
      title={point ? `${point.tag}: what is known` : 'A point of use'}
      submit={point ? 'Save' : 'Add the point'}
      canSubmit={isWhole && isRead && content !== null && (point !== undefined || draft.fittedOn !== '')}
      isSending={form.isSending}
      problem={form.generalProblem ?? null}
      onClose={onClose}
      onSubmit={() =>
        form.send(
          point ? content! : { ...withoutNull(content!), siteId: draft.siteId, fittedOn: draft.fittedOn },
        )
      }
    >
      <WhereFields
        draft={draft}
        put={put}
        isNew={point === undefined}
        units={units}
        problemOf={form.problemOf}
      />
      <FilterFields draft={draft} put={put} problemOf={form.problemOf} />
      <RegulatorFields draft={draft} put={put} problemOf={form.problemOf} />
    </FormDialog>
  );
}

function withoutNull(content: Record<string, unknown>): Record<string, unknown> {
  return Object.fromEntries(Object.entries(content).filter(([, value]) => value !== null));
}

interface FieldsProps {
  readonly draft: Draft;
  readonly put: (changes: Partial<Draft>) => void;
  readonly problemOf: (field: string) => string | undefined;
}

interface WhereProps extends FieldsProps {
  readonly isNew: boolean;
  readonly units: readonly FleetCompressorView[];
}

/** A list without one of it; null where it was not among them. */
function without(list: readonly string[], one: string): readonly string[] | null {
  return list.includes(one) ? list.filter((other) => other !== one) : null;
}

function WhereFields({ draft, put, isNew, units, problemOf }: WhereProps) {
  const { data: sites = [] } = useSites();
  const here = units.filter(({ siteId }) => siteId === draft.siteId);
  const noUnit = problemOf('compressorIds');
  const { data: vessels = [] } = useAllVessels();
  const tanks = vessels.filter(({ siteId, kind }) => siteId === draft.siteId && kind !== 'cylinder');
  const toggle = (id: string) => put({ units: without(draft.units, id) ?? [...draft.units, id] });
  return (
    <>
      {isNew && (
        <TextField
          select
          required
          label="Site"
          value={draft.siteId}
          onChange={(event) => put({ siteId: event.target.value, units: [], vessels: [] })}
          error={problemOf('siteId') !== undefined}
          helperText={problemOf('siteId') ?? ' '}
        >
          {sites.map(({ id, name }) => (
            <MenuItem key={id} value={id}>
              {name}
            </MenuItem>
          ))}
        </TextField>
      )}
      <Text label="Tag" required draft={draft} name="tag" put={put} problem={problemOf('tag')} longest={24} />
      <Text label="Where it hangs" draft={draft} name="place" put={put} problem={problemOf('place')} />
      <FormGroup aria-label="Fed by">
        <FormLabel error={noUnit !== undefined} sx={{ fontSize: '0.85rem' }}>
          Fed by
        </FormLabel>
        {here.map(({ compressorId, tag }) => (
          <FormControlLabel
            key={compressorId}
            label={tag}
            control={
              <Checkbox checked={draft.units.includes(compressorId)} onChange={() => toggle(compressorId)} />
            }
            sx={{ minHeight: 44 }}
          />
        ))}
        {tanks.map(({ id, tag, kind }) => (
          <FormControlLabel
            key={id}
            label={`${tag}, ${kind}`}
            control={
              <Checkbox
                checked={draft.vessels.includes(id)}
                onChange={() => put({ vessels: without(draft.vessels, id) ?? [...draft.vessels, id] })}
              />
            }
            sx={{ minHeight: 44 }}
          />
        ))}
        <Typography
          variant="body2"
          role={noUnit ? 'alert' : undefined}
          sx={{ color: noUnit ? 'error.main' : 'text.secondary' }}
        >
          {noUnit ??
            (draft.siteId === ''
              ? 'Choose the site first.'
              : here.length === 0
                ? 'This site has no unit in service.'
                : ' ')}
        </Typography>
      </FormGroup>
      {isNew && (
        <DayField
          label="Fitted on"
          required
          day={draft.fittedOn}
          onDay={(fittedOn) => put({ fittedOn })}
          problem={problemOf('fittedOn')}
          hint="Or when its element was last new: its tasks count from there."
        />
      )}
      <Text
        label="When the air goes, what falls, opens or brakes?"
        required
        draft={draft}
        name="whenAirGoes"
        put={put}
        problem={problemOf('whenAirGoes')}
        hint="“Nothing”, where nothing does."
        longest={160}
      />
      <Pick
        label="Does somebody breathe from it?"
        required
        value={draft.isBreathed}
        onPick={(isBreathed) => put({ isBreathed })}
        options={[
          ['no', 'no'],
          ['yes', 'yes'],
        ]}
        problem={problemOf('isBreathed')}
      />
      <QuantityField
        label="Lowest rating behind it"
        kind="pressure"
        entry={draft.rated}
        onEntry={(rated) => put({ rated })}
        {...pointBounds.ratedBar}
        problem={problemOf('ratedBar')}
        hint="Of hoses, bowls and tools."
      />
    </>
  );
}

function FilterFields({ draft, put, problemOf }: FieldsProps) {
  return (
    <>
      <Text
        label="Filter, fineness in µm"
        draft={draft}
        name="micron"
        put={put}
        problem={problemOf('filterMicron') ?? wrong(draft.micron)}
        hint="Empty: no filter."
        longest={6}
      />
      {draft.micron.trim() !== '' && (
        <>
          <Pick
            label="Bowl"
            value={draft.bowl}
            onPick={(bowl) => put({ bowl })}
            options={[
              ['plastic', 'plastic'],
              ['metal', 'metal'],
            ]}
          />
          <Pick label="Guard over it" value={draft.hasGuard} onPick={(hasGuard) => put({ hasGuard })} />
          <Pick
            label="Drain"
            value={draft.drain}
            onPick={(drain) => put({ drain })}
            options={[
              ['manual', 'by hand'],
              ['automatic', 'automatic'],
            ]}
          />
          <Text
            label="Months between elements"
            draft={draft}
            name="months"
            put={put}
            problem={problemOf('elementEveryMonths') ?? wrong(draft.months)}
            hint="Empty: 12."
            longest={2}
          />
        </>
      )}
    </>
  );
}

function RegulatorFields({ draft, put, problemOf }: FieldsProps) {
  return (
    <>
      <QuantityField
        label="Regulator, set under flow"
        kind="pressure"
        entry={draft.regulator}
        onEntry={(regulator) => put({ regulator })}
        {...pointBounds.regulatorBar}
        problem={problemOf('regulatorBar')}
        hint="Empty: no regulator."
      />
      {draft.regulator.text.trim() !== '' && (
        <Pick label="It relieves" value={draft.isRelieving} onPick={(isRelieving) => put({ isRelieving })} />
      )}
      <Pick
        label="Lubricator"
        value={draft.lubricator}
        onPick={(lubricator) => put({ lubricator })}
        options={[
          ['', 'none'],
          ['direct', 'direct: every drop goes on'],
          ['micro-mist', 'micro-mist'],
        ]}
        problem={problemOf('lubricator')}
      />
      {draft.lubricator !== '' && (
        <>
          <Pick
            label="Its oil"
            value={draft.oil}
            onPick={(oil) => put({ oil })}
            options={[
              ['mineral', 'mineral air-tool oil'],
              ['synthetic', 'synthetic air-tool oil'],
              ['food-grade', 'food-grade air-tool oil'],
            ]}
          />
          <Text
            label="Drops a minute, while air flows"
            draft={draft}
            name="drops"
            put={put}
            problem={problemOf('dropsPerMinute') ?? wrong(draft.drops)}
            longest={5}
          />
          <Text label="More: which way" draft={draft} name="moreBy" put={put} hint="Like “screw out”." />
        </>
      )}
    </>
  );
}

const wrong = (text: string) => (figure(text) === undefined ? 'That is no figure.' : undefined);

type TextName = { [Name in keyof Draft]: Draft[Name] extends string ? Name : never }[keyof Draft];

interface TextProps {
  readonly label: string;
  readonly draft: Draft;
  readonly name: TextName;
  readonly put: (changes: Partial<Draft>) => void;
  readonly problem?: string | undefined;
  readonly hint?: string;
  readonly longest?: number;
  readonly required?: boolean;
}

function Text({ label, draft, name, put, problem, hint = ' ', longest = 80, required = false }: TextProps) {
  return (
    <TextField
      label={label}
      required={required}
      value={draft[name]}
      onChange={(event) => put({ [name]: event.target.value })}
      error={problem !== undefined}
      helperText={problem ?? hint}
      slotProps={{ htmlInput: { maxLength: longest } }}
    />
  );
}

interface PickProps {
  readonly label: string;
  readonly value: string;
  readonly onPick: (code: string) => void;
  readonly options?: readonly (readonly [string, string])[];
  readonly problem?: string | undefined;
  readonly required?: boolean;
}

const yesOrNo = [
  ['', 'nobody said'],
  ['yes', 'yes'],
  ['no', 'no'],
] as const;

function Pick({ label, value, onPick, options = yesOrNo, problem, required = false }: PickProps) {
  return (
    <TextField
      select
      label={label}
      required={required}
      value={value}
      onChange={(event) => onPick(event.target.value)}
      error={problem !== undefined}
      helperText={problem ?? ' '}
    >
      {options.map(([code, name]) => (
        <MenuItem key={code} value={code}>
          {name}
        </MenuItem>
      ))}
    </TextField>
  );
}
