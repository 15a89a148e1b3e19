import {
  Avatar,
  Box,
  Button,
  Divider,
  IconButton,
  ListSubheader,
  Menu,
  MenuItem,
  TextField,
} from '@mui/material';
import { useColorScheme } from '@mui/material/styles';
import { unitsOf, type QuantityKind } from '@entretien/core/quantities';
import { useState } from 'react';
import { v7 as newId } from 'uuid';
import { sentenceOf } from '../data/api.js';
import { useAddPerson, usePeople } from '../data/queries.js';
import { usePreferences } from '../data/preferences.js';

const measures: readonly (readonly [QuantityKind, string])[] = [
  ['pressure', 'Pressure'],
  ['flow', 'Flow'],
  ['volume', 'Volume'],
  ['temperature', 'Temperature'],
  ['length', 'Length'],
];

const schemes = [
  ['system', 'as device'],
  ['light', 'light'],
  ['dark', 'dark'],
] as const;

/** Who is working, and how this device shows things. */
export function PersonMenu({ onShowKeys }: { readonly onShowKeys: () => void }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const { data: people = [] } = usePeople();
  const { personId, setPerson, units, setUnit } = usePreferences();
  const { mode, setMode } = useColorScheme();
  const current =
    people.find((person) => person.id === personId) ?? (people.length === 1 ? people[0] : undefined);
  const choose = (id: string) => {
    setPerson(id);
    setAnchor(null);
  };
  return (
    <>
      <IconButton
        aria-label={current ? `${current.name} is working. Change` : 'Say who is working'}
        onClick={(event) => setAnchor(event.currentTarget)}
        size="small"
        sx={{ flex: 'none' }}
      >
        <Avatar
          sx={{
            width: 30,
            height: 30,
            fontSize: 12.5,
            fontWeight: 700,
            bgcolor: 'slateGround',
            color: 'slate',
          }}
        >
          {current?.initials ?? '?'}
        </Avatar>
      </IconButton>
      <Menu
        anchorEl={anchor}
        open={anchor !== null}
        onClose={() => setAnchor(null)}
        slotProps={{ list: { dense: true } }}
      >
        <ListSubheader sx={subheader}>Who is working</ListSubheader>
        {people.map((person) => (
          <MenuItem key={person.id} selected={person.id === current?.id} onClick={() => choose(person.id)}>
            {person.name}
          </MenuItem>
        ))}
        <AddPerson onAdded={choose} />
        <Divider />
        {measures.map(([kind, name]) => (
          <Choice
            key={kind}
            name={name}
            options={unitsOf(kind).map((unit) => [unit.code, unit.label] as const)}
            value={units[kind] ?? unitsOf(kind)[0].code}
            onChoose={(code) => setUnit(kind, code)}
          />
        ))}
        <Choice
          name="Theme"
          options={schemes}
          value={mode ?? 'system'}
          onChoose={(code) => setMode(code as 'system' | 'light' | 'dark')}
        />
        <Divider />
        <MenuItem
          onClick={() => {
            setAnchor(null);
            onShowKeys();
          }}
        >
          Keyboard shortcuts
        </MenuItem>
      </Menu>
    </>
  );
}

const subheader = { bgcolor: 'transparent', lineHeight: '32px' };

interface ChoiceProps {
  readonly name: string;
  readonly options: readonly (readonly [string, string])[];
  readonly value: string;
  readonly onChoose: (code: string) => void;
}

function Choice({ name, options, value, onChoose }: ChoiceProps) {
  return (
    <Box component="li" sx={{ display: 'flex', alignItems: 'center', gap: 0.5, px: 2, py: 0.25 }}>
      <Box sx={{ width: 74, color: 'text.secondary', typography: 'body2' }}>{name}</Box>
      {options.map(([code, label]) => (
        <Button
          key={code}
          size="small"
          variant={code === value ? 'contained' : 'text'}
          aria-pressed={code === value}
          onClick={() => onChoose(code)}
          sx={{ minWidth: 0, px: 1, minHeight: 30 }}
        >
          {label}
        </Button>
      ))}
    </Box>
  );
}

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
    <Box component="li" sx={{ px: 2, py: 1, display: 'flex', gap: 1, alignItems: 'start' }}>
      <TextField
        size="small"
        label="Add a person"
        value={name}
        onChange={(event) => setName(event.target.value)}
        onKeyDown={(event) => {
          // The menu jumps to entries by their letters; here letters are letters.
          if (event.key !== 'Escape' && event.key !== 'Tab') event.stopPropagation();
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
