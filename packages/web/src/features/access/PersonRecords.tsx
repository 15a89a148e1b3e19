import { Alert, Button, Stack, Typography } from '@mui/material';
import type { RemovedNameView } from '@entretien/contracts';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { postJson } from '../../data/api.js';
import { FormDialog } from '../../components/FormDialog.js';
import { ProblemLine } from '../../components/ProblemLine.js';

interface WhoProps {
  readonly personId: string;
  readonly name: string;
}

/** What is on record of somebody: all of it as a file, and their name taken off it. */
export function PersonRecords({ personId, name }: WhoProps) {
  const client = useQueryClient();
  const [isSure, setSure] = useState(false);
  const remove = useMutation({
    mutationFn: () => postJson<RemovedNameView>(`/people/${personId}/name-removal`, {}),
    onSuccess: () => client.invalidateQueries(),
  });
  if (remove.isSuccess)
    return (
      <Alert severity="success" variant="outlined">
        {name} is called “{remove.data.name}” from now on
        {remove.data.places === 0 ? '' : `, in ${remove.data.places} notes and fields too`}. Backups that were
        made before hold the name until they are a year old: make one now, and delete those.
      </Alert>
    );
  return (
    <Stack sx={{ gap: 1, alignItems: 'start' }}>
      <Typography variant="h3" component="p">
        What is on record
      </Typography>
      <Button
        component="a"
        href={`/api/people/${personId}/export`}
        download
        variant="outlined"
        sx={{ minHeight: 44 }}
      >
        Save everything of {name}
      </Button>
      {isSure ? (
        <Alert
          severity="warning"
          variant="outlined"
          action={
            <Button
              color="error"
              disabled={remove.isPending}
              onClick={() => remove.mutate()}
              sx={{ minHeight: 44, whiteSpace: 'nowrap' }}
            >
              Remove it
            </Button>
          }
        >
          The name goes from every note, signature and line, the account is closed. What was recorded stays.
          It cannot be undone.
        </Alert>
      ) : (
        <Button color="error" onClick={() => setSure(true)} sx={{ minHeight: 44 }}>
          Remove the name
        </Button>
      )}
      <ProblemLine error={remove.error} />
    </Stack>
  );
}

/** The same on its own, for whoever has no open account. */
export function PersonRecordsDialog({ onClose, ...who }: WhoProps & { readonly onClose: () => void }) {
  return (
    <FormDialog title={who.name} submit="Done" onSubmit={onClose} onClose={onClose}>
      <PersonRecords {...who} />
    </FormDialog>
  );
}
