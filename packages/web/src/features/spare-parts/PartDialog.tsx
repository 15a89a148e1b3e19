import { Autocomplete, Box, Button, MenuItem, TextField } from '@mui/material';
import { AddPart, ChangePart, type PartView } from '@entretien/contracts';
import { partClasses, type PartClass } from '@entretien/core/parts';
import { readNumber } from '@entretien/core/quantities';
import { Fragment, useState } from 'react';
import { v7 as newId } from 'uuid';
import { ApiProblem, sentenceOf } from '../../data/api.js';
import { useFleet, usePost, useSettings } from '../../data/queries.js';
import { FormDialog } from '../../components/FormDialog.js';
import { figureFields, readFigures } from './part-figures.js';

const classNames: Readonly<Record<PartClass, string>> = {
  element: 'filter or element',
  oil: 'oil',
  cartridge: 'purifier cartridge',
  seal: 'seals and kits',
  other: 'other',
};

type Texts = Readonly<Record<string, string>>;

/** What is known of a part, as it would be typed. */
function textsOf(part: PartView): Texts {
  const { name, number, answers, supplier = '', priceCents, figures } = part;
  const { contents = '', leadDays, secondSource = '' } = part;
  const lead = leadDays === undefined ? '' : String(leadDays);
  const price = priceCents === undefined ? '' : (priceCents / 100).toFixed(2);
  const known = Object.fromEntries(Object.entries(figures).map(([code, figure]) => [code, String(figure)]));
  return { ...known, name, number, answers, supplier, price, contents, lead, secondSource };
}

/** What may be known of where it comes from; null where nothing is. */
function moreOf(texts: Texts, days: number | undefined) {
  const given = (field: string) => ((texts[field] ?? '').trim() === '' ? null : texts[field]!.trim());
  return {
    supplier: given('supplier'),
    contents: given('contents'),
    leadDays: days === undefined ? null : Math.round(days),
    secondSource: given('secondSource'),
  };
}

interface PartDialogProps {
  /** The part that is put right; left out, one is added. */
  readonly part?: PartView;
  readonly onClose: () => void;
}

/** A part taken into the catalogue, or put right; the figures are what substitutes are judged by. */
export function PartDialog({ part, onClose }: PartDialogProps) {
  const { units } = useFleet({ all: true });
  const currency = useSettings().data?.currency ?? 'EUR';
  const [id] = useState(() => newId());
  const [texts, setTexts] = useState<Texts>(() => (part ? textsOf(part) : {}));
  const [kind, setKind] = useState<PartClass>(part?.class ?? 'element');
  const [fits, setFits] = useState<readonly string[]>(part?.fits ?? []);
  const add = usePost<AddPart, PartView>(AddPart, '/parts');
  const change = usePost<ChangePart, PartView>(ChangePart, `/parts/${part?.id ?? ''}/changes`);
  const post = part ? change : add;
  const text = (field: string) => texts[field] ?? '';
  const put = (field: string, value: string) => setTexts({ ...texts, [field]: value });
  const { figures, problems } = readFigures(texts);
  const price = readOptional(text('price'), 1_000_000);
  const inVan = readOptional(text('inVan'), 100_000);
  const lead = readOptional(text('lead'), 365);
  const problemOf = (field: string) =>
    post.error instanceof ApiProblem ? post.error.forField(field) : undefined;
  const canSubmit =
    ['number', 'name', 'answers'].every((field) => text(field).trim() !== '') &&
    Object.keys(problems).length === 0 &&
    price.isOk &&
    lead.isOk &&
    inVan.isOk;
  const shared = {
    id,
    number: text('number').trim(),
    name: text('name').trim(),
    answers: text('answers').trim(),
    class: kind,
    fits: [...fits],
    figures,
  };
  const priceCents = price.value === undefined ? null : Math.round(price.value * 100);
  const more = moreOf(texts, lead.value);
  const send = () => {
    const done = { onSuccess: onClose };
    if (part) return change.mutate({ ...shared, priceCents, ...more }, done);
    add.mutate(
      {
        ...shared,
        ...(priceCents === null ? {} : { priceCents }),
        ...Object.fromEntries(Object.entries(more).filter(([, value]) => value !== null)),
        ...(inVan.value === undefined ? {} : { inVan: inVan.value }),
      },
      done,
    );
  };
  const field = (code: string, label: string, longest: number, hint?: string, problem?: string) => (
    <TextField
      label={label}
      value={text(code)}
      onChange={(event) => put(code, event.target.value)}
      size="small"
      autoFocus={code === 'name'}
      error={problem !== undefined || problemOf(code) !== undefined}
      helperText={problem ?? problemOf(code) ?? hint}
      slotProps={{ htmlInput: { maxLength: longest } }}
    />
  );
  return (
    <FormDialog
      title={part ? `Edit ${part.name}` : 'Add a part'}
      submit={part ? 'Save' : 'Add it'}
      canSubmit={canSubmit}
      isSending={post.isPending}
      problem={post.error ? sentenceOf(post.error) : null}
      onSubmit={send}
      onClose={onClose}
      wide
    >
      <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' }, gap: 1.5 }}>
        {field('name', 'Name', 120)}
        {field('number', 'Number', 40)}
        {field('answers', 'Used for', 120, 'As the plan names it, like “oil filter”.')}
        <TextField
          select
          label="What it is"
          size="small"
          value={kind}
          onChange={(event) => setKind(event.target.value as PartClass)}
        >
          {partClasses.map((one) => (
            <MenuItem key={one} value={one}>
              {classNames[one]}
            </MenuItem>
          ))}
        </TextField>
        <Autocomplete
          multiple
          size="small"
          options={units.map(({ compressorId }) => compressorId)}
          getOptionLabel={(unit) => units.find(({ compressorId }) => compressorId === unit)?.tag ?? ''}
          value={[...fits]}
          onChange={(_event, chosen) => setFits(chosen)}
          renderInput={(props) => (
            <TextField {...props} label="Fits" helperText="Left empty: whatever asks for it." />
          )}
        />
        {field('supplier', 'Supplier', 80)}
        {field('secondSource', 'Second source', 80)}
        {field('lead', 'Comes within, days', 3, undefined, lead.isOk ? undefined : 'Days from 0 to 365.')}
        {field('contents', 'In the kit', 500, 'Of a kit: what lies in it.')}
        {field(
          'price',
          `Price, ${currency}`,
          12,
          undefined,
          price.isOk ? undefined : 'A price from 0 to 1,000,000.',
        )}
        {!part &&
          field('inVan', 'In the van', 12, undefined, inVan.isOk ? undefined : 'A number from 0 to 100,000.')}
        {figureFields.map(({ code, label }) => (
          <Fragment key={code}>{field(code, label, 24, undefined, problems[code])}</Fragment>
        ))}
      </Box>
      {part && <Retire part={part} onClose={onClose} />}
    </FormDialog>
  );
}

/** Out of the catalogue, or back into it: what used it stays as it was. */
function Retire({ part, onClose }: { readonly part: PartView; readonly onClose: () => void }) {
  const change = usePost<ChangePart, PartView>(ChangePart, `/parts/${part.id}/changes`);
  return (
    <Box>
      <Button
        color={part.isRetired ? 'primary' : 'error'}
        disabled={change.isPending}
        onClick={() => change.mutate({ id: newId(), isRetired: !part.isRetired }, { onSuccess: onClose })}
        sx={{ minHeight: 44, px: 0 }}
      >
        {part.isRetired ? 'Back into the catalogue' : 'Take it out of the catalogue'}
      </Button>
    </Box>
  );
}

function readOptional(text: string, most: number): { readonly isOk: boolean; readonly value?: number } {
  if (text.trim() === '') return { isOk: true };
  const read = readNumber(text);
  return read.ok && read.value >= 0 && read.value <= most
    ? { isOk: true, value: read.value }
    : { isOk: false };
}
