import { Button, Checkbox, FormControlLabel, TextField, Typography } from '@mui/material';
import { AddCustomer, type CustomerView, type SiteView } from '@entretien/contracts';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { v7 as newId } from 'uuid';
import { FormDialog } from '../../components/FormDialog.js';
import { postJson, sentenceOf } from '../../data/api.js';
import { useSites } from '../../data/queries.js';
import { refuseMalformed } from '../../data/refuse-malformed.js';

interface CustomerDialogProps {
  /** Whose sites are chosen; left out, a new one is added. */
  readonly customer?: CustomerView;
  readonly onClose: () => void;
}

/** A customer, and which sites are theirs. */
export function CustomerDialog({ customer, onClose }: CustomerDialogProps) {
  const client = useQueryClient();
  const { data: sites = [] } = useSites();
  const [id] = useState(() => customer?.id ?? newId());
  const [name, setName] = useState(customer?.name ?? '');
  const [chosen, setChosen] = useState<ReadonlySet<string>>(() => new Set(customer?.siteIds));
  const save = useMutation({
    mutationFn: async () => {
      if (!customer) {
        const body = { id, name: name.trim() };
        refuseMalformed(AddCustomer, body);
        await postJson<CustomerView>('/customers', body);
      }
      for (const site of sites) {
        const was = site.customerId === id;
        if (was === chosen.has(site.id)) continue;
        const owner = { id: newId(), customerId: was ? null : id };
        await postJson<SiteView>(`/sites/${site.id}/customer`, owner);
      }
    },
    onSuccess: async () => {
      await client.invalidateQueries();
      onClose();
    },
  });
  const toggle = (siteId: string, on: boolean) => {
    const next = new Set(chosen);
    if (on) next.add(siteId);
    else next.delete(siteId);
    setChosen(next);
  };
  return (
    <FormDialog
      title={customer ? `Sites of ${customer.name}` : 'Add a customer'}
      submit="Save"
      canSubmit={name.trim() !== ''}
      isSending={save.isPending}
      problem={save.error ? sentenceOf(save.error) : null}
      onSubmit={() => save.mutate()}
      onClose={onClose}
    >
      {!customer && (
        <TextField
          label="Name"
          value={name}
          onChange={(event) => setName(event.target.value)}
          slotProps={{ htmlInput: { maxLength: 120 } }}
        />
      )}
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        Which sites are theirs:
      </Typography>
      {sites.map((site) => (
        <FormControlLabel
          key={site.id}
          control={<Checkbox checked={chosen.has(site.id)} onChange={(_event, on) => toggle(site.id, on)} />}
          label={
            site.customerId !== undefined && site.customerId !== id
              ? `${site.name} (another customer’s so far)`
              : site.name
          }
          sx={{ minHeight: 44 }}
        />
      ))}
      {customer && (
        <Button
          component="a"
          href={`/api/customers/${customer.id}/export`}
          download
          variant="outlined"
          sx={{ minHeight: 44, alignSelf: 'start' }}
        >
          Save everything of {customer.name}
        </Button>
      )}
    </FormDialog>
  );
}
