import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { Autocomplete, TextField } from '@mui/material';
import { AddSite, ChangeSite, type SiteView } from '@entretien/contracts';
import { useState } from 'react';
import { Controller, useForm } from 'react-hook-form';
import { v7 as newId } from 'uuid';
import { sentenceOf } from '../../data/api.js';
import { deviceZone } from '../../data/clock.js';
import { usePost } from '../../data/queries.js';
import { FormDialog } from '../../components/FormDialog.js';
import { FormQuantity } from '../../components/PlateInputs.js';

interface SiteDialogProps {
  /** The site to mend; left out, a new one is added. */
  readonly site?: SiteView;
  readonly onClose: () => void;
  readonly onSaved?: (site: SiteView) => void;
}

const texts = [
  ['name', 'Name'],
  ['address', 'Address'],
  ['contact', 'Who to ask for'],
  ['note', 'Note'],
] as const;

/** Adds a site, or mends what is known of one. */
export function SiteDialog({ site, onClose, onSaved }: SiteDialogProps) {
  const [id] = useState(() => newId());
  const zone = site?.timeZone ?? deviceZone();
  const form = useForm<AddSite>({
    defaultValues: { ...site, id, timeZone: zone },
    resolver: classValidatorResolver(AddSite),
    mode: 'onTouched',
  });
  const post = usePost<object, SiteView>(
    site ? ChangeSite : AddSite,
    site ? `/sites/${site.id}/changes` : '/sites',
  );
  const send = form.handleSubmit((values) => {
    const body = site ? changesOf(site, values) : withoutBlanks(values);
    post.mutate(
      { ...body, id },
      {
        onSuccess: (saved) => {
          onSaved?.(saved);
          onClose();
        },
      },
    );
  });
  return (
    <FormDialog
      title={site ? `Site ${site.name}` : 'Add a site'}
      submit="Save site"
      isSending={post.isPending}
      problem={post.isError ? sentenceOf(post.error) : null}
      onClose={onClose}
      onSubmit={() => void send()}
    >
      {texts.map(([name, label]) => (
        <Controller
          key={name}
          control={form.control}
          name={name}
          render={({ field, fieldState }) => (
            <TextField
              label={label}
              size="small"
              value={field.value ?? ''}
              inputRef={field.ref}
              onBlur={field.onBlur}
              onChange={(event) => field.onChange(event.target.value || undefined)}
              error={fieldState.error !== undefined}
              helperText={fieldState.error?.message ?? ' '}
              multiline={name === 'note'}
              slotProps={{ htmlInput: { maxLength: name === 'note' ? 2000 : 120 } }}
            />
          )}
        />
      ))}
      <Controller
        control={form.control}
        name="timeZone"
        render={({ field, fieldState }) => (
          <Autocomplete
            options={Intl.supportedValuesOf('timeZone').concat('UTC')}
            value={field.value ?? 'UTC'}
            disableClearable
            onChange={(_event, value) => field.onChange(value)}
            renderInput={(parameters) => (
              <TextField
                {...parameters}
                size="small"
                label="Time zone"
                error={fieldState.error !== undefined}
                helperText={fieldState.error?.message ?? ' '}
              />
            )}
          />
        )}
      />
      <Controller
        control={form.control}
        name="altitudeM"
        render={({ field, fieldState }) => (
          <FormQuantity
            label="Altitude"
            kind="altitude"
            max={6000}
            initial={field.value}
            onValue={field.onChange}
            problem={fieldState.error?.message}
          />
        )}
      />
    </FormDialog>
  );
}

function withoutBlanks(values: AddSite): object {
  return Object.fromEntries(
    Object.entries(values).filter(([, value]) => value !== undefined && value !== ''),
  );
}

/** What differs from what is known; a field that was emptied becomes unknown. */
function changesOf(site: SiteView, values: AddSite): object {
  const fields = ['name', 'timeZone', 'altitudeM', 'address', 'contact', 'note'] as const;
  return Object.fromEntries(
    fields
      .filter((name) => (values[name] ?? null) !== (site[name] ?? null))
      .map((name) => [name, values[name] ?? null]),
  );
}
