import { FormControlLabel, MenuItem, Stack, Switch, TextField, Typography } from '@mui/material';
import { Invite, type CustomerView, type NewInvitationView } from '@entretien/contracts';
import { roles, type Role } from '@entretien/core/access';
import { useQueryClient } from '@tanstack/react-query';
import { useState, type FocusEvent } from 'react';
import { v7 as newId } from 'uuid';
import { FormDialog } from '../../components/FormDialog.js';
import { ScanCode } from '../../components/ScanCode.js';
import { sentenceOf } from '../../data/api.js';
import { usePeople, usePost } from '../../data/queries.js';
import { roleTexts } from './roles.js';

interface InviteDialogProps {
  readonly customers: readonly CustomerView[];
  readonly onClose: () => void;
}

const SOMEBODY_NEW = 'new';

/** Invites somebody, and shows once by which address they come in. */
export function InviteDialog({ customers, onClose }: InviteDialogProps) {
  const client = useQueryClient();
  const { data: people = [] } = usePeople();
  const [id] = useState(() => newId());
  const [role, setRole] = useState<Role>('technician');
  const [personId, setPerson] = useState(SOMEBODY_NEW);
  const [name, setName] = useState('');
  const [chosen, setCustomer] = useState('');
  // Where there is one only, it is meant; the list may come after the form.
  const customerId = chosen === '' && customers.length === 1 ? customers[0]!.id : chosen;
  const [seesPrices, setPrices] = useState(false);
  const post = usePost<Invite, NewInvitationView>(Invite, '/invitations');
  const isCustomer = role === 'customer';
  const known = isCustomer ? undefined : people.find((person) => person.id === personId);
  const shownName = known?.name ?? name;
  const send = () =>
    post.mutate(
      {
        id,
        role,
        name: shownName.trim(),
        ...(known ? { personId: known.id } : {}),
        ...(isCustomer ? { customerId, seesPrices } : {}),
      },
      { onSuccess: () => void client.invalidateQueries({ queryKey: ['access'] }) },
    );
  if (post.data) return <Invited invitation={post.data} onClose={onClose} />;
  return (
    <FormDialog
      title="Invite somebody"
      submit="Make the invitation"
      canSubmit={shownName.trim() !== '' && (!isCustomer || customerId !== '')}
      isSending={post.isPending}
      problem={post.error ? sentenceOf(post.error) : null}
      onSubmit={send}
      onClose={onClose}
    >
      <TextField
        select
        label="As"
        value={role}
        onChange={(event) => setRole(event.target.value as Role)}
        helperText={roleTexts[role][1]}
      >
        {roles.map((one) => (
          <MenuItem key={one} value={one}>
            {roleTexts[one][0]}
          </MenuItem>
        ))}
      </TextField>
      {!isCustomer && people.length > 0 && (
        <TextField
          select
          label="Who"
          value={personId}
          onChange={(event) => setPerson(event.target.value)}
          helperText="What somebody on record has recorded stays theirs."
        >
          {people.map((person) => (
            <MenuItem key={person.id} value={person.id}>
              {person.name}
            </MenuItem>
          ))}
          <MenuItem value={SOMEBODY_NEW}>Somebody new</MenuItem>
        </TextField>
      )}
      {!known && (
        <TextField
          label="Their name"
          value={name}
          onChange={(event) => setName(event.target.value)}
          slotProps={{ htmlInput: { maxLength: 120 } }}
        />
      )}
      {isCustomer && (
        <>
          <TextField
            select
            label="Whose sites they see"
            value={customerId}
            onChange={(event) => setCustomer(event.target.value)}
            helperText={customers.length === 0 ? 'Add the customer first.' : undefined}
          >
            {customers.map((customer) => (
              <MenuItem key={customer.id} value={customer.id}>
                {customer.name}
              </MenuItem>
            ))}
          </TextField>
          <FormControlLabel
            control={<Switch checked={seesPrices} onChange={(_event, on) => setPrices(on)} />}
            label="Sees prices in reports"
            sx={{ minHeight: 44 }}
          />
        </>
      )}
    </FormDialog>
  );
}

function Invited({
  invitation,
  onClose,
}: {
  readonly invitation: NewInvitationView;
  readonly onClose: () => void;
}) {
  const address = `${window.location.origin}/join#${invitation.code}`;
  return (
    <FormDialog title={`${invitation.name} is invited`} submit="Done" onSubmit={onClose} onClose={onClose}>
      <Typography>
        Let them scan this, or send them the address. It leads in once, within a week, and is not shown again.
      </Typography>
      <Stack sx={{ alignItems: 'center' }}>
        <ScanCode address={address} name="Code of the invitation" size={200} />
      </Stack>
      <TextField
        label="Address"
        value={address}
        multiline
        slotProps={{ htmlInput: { readOnly: true, onFocus: selectAll } }}
      />
    </FormDialog>
  );
}

function selectAll({ currentTarget }: FocusEvent<HTMLInputElement | HTMLTextAreaElement>): void {
  currentTarget.select();
}
