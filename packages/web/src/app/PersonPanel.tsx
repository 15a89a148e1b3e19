import { Box, Button, Divider, Popover, TextField, Typography } from '@mui/material';
import { useColorScheme } from '@mui/material/styles';
import { useState } from 'react';
import { Link } from 'react-router';
import { v7 as newId } from 'uuid';
import { sentenceOf } from '../data/api.js';
import type { AccountView, PersonView } from '@entretien/contracts';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { signOut, useMay } from '../data/me.js';
import { useOutbox } from '../data/outbox/outbox.js';
import { Choice, FormatChoices, UnitChoices } from '../components/Choices.js';
import { ProblemLine } from '../components/ProblemLine.js';
import { useAddPerson } from '../data/queries.js';
import { usePreferences, type FirstDay } from '../data/preferences.js';

const firstDays = [
  ['1', 'Mon'],
  ['0', 'Sun'],
  ['6', 'Sat'],
] as const;

const schemes = [
  ['system', 'as device'],
  ['light', 'light'],
  ['dark', 'dark'],
] as const;

interface Props {
  readonly anchor: HTMLElement;
  readonly people: readonly PersonView[];
  readonly current: PersonView | undefined;
  /** Who is signed in; null where nobody signs in. */
  readonly account: AccountView | null;
  readonly onClose: () => void;
  readonly onShowKeys: () => void;
}

/** What the person's button opens. */
export function PersonPanel({ anchor, people, current, account, onClose, onShowKeys }: Props) {
  const isLead = useMay('lead');
  const { setPerson, units, setUnit, formats, setFormats, firstDay, setFirstDay } = usePreferences();
  const { mode, setMode } = useColorScheme();
  const choose = (id: string) => {
    setPerson(id);
    onClose();
  };
  return (
    <Popover
      anchorEl={anchor}
      open
      onClose={onClose}
      anchorOrigin={{ vertical: 'bottom', horizontal: 'right' }}
      transformOrigin={{ vertical: 'top', horizontal: 'right' }}
      slotProps={{ paper: { role: 'dialog', 'aria-label': 'You and this device', sx: { py: 1 } } }}
    >
      {account ? (
        <SignedIn account={account} onClose={onClose} />
      ) : (
        <>
          <Typography variant="body2" component="h2" sx={{ color: 'text.secondary', px: 2, pb: 0.5 }}>
            Who is working
          </Typography>
          {people.map((person) => (
            <Button
              key={person.id}
              fullWidth
              aria-pressed={person.id === current?.id}
              onClick={() => choose(person.id)}
              sx={{ ...entry, bgcolor: person.id === current?.id ? 'slateGround' : undefined }}
            >
              {person.name}
            </Button>
          ))}
          <AddPerson onAdded={choose} />
        </>
      )}
      <Divider />
      <Box sx={{ px: 2 }}>
        <UnitChoices units={units} onUnit={setUnit} />
        <FormatChoices formats={formats} onFormats={setFormats} />
        <Choice
          name="Week from"
          options={firstDays}
          value={String(firstDay)}
          onChoose={(code) => setFirstDay(Number(code) as FirstDay)}
        />
        <Choice
          name="Theme"
          options={schemes}
          value={mode ?? 'system'}
          onChoose={(code) => setMode(code as 'system' | 'light' | 'dark')}
        />
      </Box>
      <Divider />
      {isLead && (
        <Button component={Link} to="/settings" fullWidth onClick={onClose} sx={entry}>
          Workshop settings
        </Button>
      )}
      {isLead && account && (
        <Button component={Link} to="/people" fullWidth onClick={onClose} sx={entry}>
          People and rights
        </Button>
      )}
      <Button component={Link} to="/phone" fullWidth onClick={onClose} sx={entry}>
        Put it on your phone
      </Button>
      <Button
        fullWidth
        onClick={() => {
          onClose();
          onShowKeys();
        }}
        sx={entry}
      >
        Keyboard shortcuts
      </Button>
    </Popover>
  );
}

/** Who is signed in, and the way out. */
function SignedIn({ account, onClose }: { readonly account: AccountView; readonly onClose: () => void }) {
  const client = useQueryClient();
  const waiting = useOutbox((outbox) => outbox.items.length);
  const leave = useMutation({ mutationFn: () => signOut(client), onSuccess: onClose });
  return (
    <>
      <Typography component="h2" sx={{ fontWeight: 650, px: 2 }}>
        {account.name}
      </Typography>
      <Button component={Link} to="/account" fullWidth onClick={onClose} sx={entry}>
        Your account
      </Button>
      {waiting > 0 && (
        <Typography variant="body2" sx={{ px: 2, maxWidth: 300, color: 'brass' }}>
          {waiting === 1 ? '1 entry has' : `${waiting} entries have`} not reached the server yet. They wait on
          this device until you sign in here again.
        </Typography>
      )}
      <Button fullWidth disabled={leave.isPending} onClick={() => leave.mutate()} sx={entry}>
        Sign out
      </Button>
      <Box sx={{ px: 2 }}>
        <ProblemLine error={leave.error} />
      </Box>
    </>
  );
}

const entry = { justifyContent: 'start', px: 2, minHeight: 40, borderRadius: 0, color: 'text.primary' };

function AddPerson({ onAdded }: { readonly onAdded: (id: string) => void }) {
  const [name, setName] = useState('');
  const add = useAddPerson();
  const submit = () => {
    if (name.trim() === '') return;
    add.mutate(
      { id: newId(), name: name.trim() },
      {
        onSuccess: (person) => onAdded(person.id),
      },
    );
  };
  return (
    <Box sx={{ px: 2, py: 1, display: 'flex', gap: 1, alignItems: 'start' }}>
      <TextField
        size="small"
        label="Add a person"
        value={name}
        onChange={(event) => setName(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Enter') submit();
        }}
        error={add.isError}
        helperText={add.isError ? sentenceOf(add.error) : undefined}
        slotProps={{ htmlInput: { maxLength: 120 } }}
      />
      <Button onClick={submit} disabled={name.trim() === '' || add.isPending}>
        Add
      </Button>
    </Box>
  );
}
