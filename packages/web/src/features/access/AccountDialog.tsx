import { Alert, Button, FormControlLabel, MenuItem, Switch, TextField, Typography } from '@mui/material';
import { ChangeAccount, type AccountView, type SessionView } from '@entretien/contracts';
import { roles, type Role } from '@entretien/core/access';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { FormDialog } from '../../components/FormDialog.js';
import { getJson, postJson, sentenceOf } from '../../data/api.js';
import { usePost } from '../../data/queries.js';
import { PersonRecords } from './PersonRecords.js';
import { roleTexts } from './roles.js';
import { SessionList } from './SessionList.js';

interface AccountDialogProps {
  readonly account: AccountView;
  readonly onClose: () => void;
}

/** What somebody may, where they are signed in, and that they may no more. */
export function AccountDialog({ account, onClose }: AccountDialogProps) {
  const client = useQueryClient();
  const [role, setRole] = useState<Role>(account.role);
  const [seesPrices, setPrices] = useState(account.seesPrices);
  const [isClosing, setClosing] = useState(false);
  const isCustomer = account.role === 'customer';
  const finish = async () => {
    await client.invalidateQueries();
    onClose();
  };
  const save = usePost<ChangeAccount, AccountView>(ChangeAccount, `/accounts/${account.id}/changes`);
  const shut = useMutation({
    mutationFn: () => postJson<AccountView>(`/accounts/${account.id}/close`, {}),
    onSuccess: finish,
  });
  const sessions = useQuery({
    queryKey: ['access', account.id, 'sessions'],
    queryFn: () => getJson<readonly SessionView[]>(`/accounts/${account.id}/sessions`),
  });
  const failed = save.error ?? shut.error;
  return (
    <FormDialog
      title={account.name}
      submit="Save"
      isSending={save.isPending || shut.isPending}
      problem={failed ? sentenceOf(failed) : null}
      onSubmit={() => save.mutate(isCustomer ? { seesPrices } : { role }, { onSuccess: () => void finish() })}
      onClose={onClose}
    >
      {isCustomer ? (
        <FormControlLabel
          control={<Switch checked={seesPrices} onChange={(_event, on) => setPrices(on)} />}
          label="Sees prices in reports"
          sx={{ minHeight: 44 }}
        />
      ) : (
        <TextField
          select
          label="Role"
          value={role}
          onChange={(event) => setRole(event.target.value as Role)}
          helperText={roleTexts[role][1]}
        >
          {roles
            .filter((one) => one !== 'customer')
            .map((one) => (
              <MenuItem key={one} value={one}>
                {roleTexts[one][0]}
              </MenuItem>
            ))}
        </TextField>
      )}
      <Typography variant="h3" component="p">
        Where they are signed in
      </Typography>
      {sessions.data?.length === 0 && (
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          Nowhere.
        </Typography>
      )}
      {sessions.data && <SessionList sessions={sessions.data} />}
      {account.personId !== null && <PersonRecords personId={account.personId} name={account.name} />}
      {isClosing ? (
        <Alert
          severity="warning"
          variant="outlined"
          action={
            <Button color="error" onClick={() => shut.mutate()} sx={{ minHeight: 44 }}>
              Close it
            </Button>
          }
        >
          {account.name} is signed out everywhere and cannot sign in again. What they recorded stays.
        </Alert>
      ) : (
        <Button color="error" onClick={() => setClosing(true)} sx={{ minHeight: 44, alignSelf: 'start' }}>
          Close the account
        </Button>
      )}
    </FormDialog>
  );
}
