import { initialsOf } from '@entretien/core/basics';
import { Avatar, IconButton } from '@mui/material';
import { lazy, Suspense, useState } from 'react';
import { usePeople } from '../data/queries.js';
import { useOwnAccount } from '../data/me.js';
import { usePreferences } from '../data/preferences.js';

const PersonPanel = lazy(() => import('./PersonPanel.js').then((part) => ({ default: part.PersonPanel })));

/** Who is working, and how this device shows things. */
export function PersonMenu({ onShowKeys }: { readonly onShowKeys: () => void }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const account = useOwnAccount();
  const { data: people = [] } = usePeople({ enabled: account?.role !== 'customer' });
  const personId = usePreferences((preferences) => preferences.personId);
  const current =
    people.find((person) => person.id === personId) ?? (people.length === 1 ? people[0] : undefined);
  const label = account
    ? `Signed in as ${account.name}`
    : current
      ? `${current.name} is working. Change`
      : 'Say who is working';
  return (
    <>
      <IconButton
        aria-label={label}
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
          {(account ? initialsOf(account.name) : current?.initials) ?? '?'}
        </Avatar>
      </IconButton>
      <Suspense fallback={null}>
        {anchor !== null && (
          <PersonPanel
            anchor={anchor}
            people={people}
            account={account}
            current={current}
            onClose={() => setAnchor(null)}
            onShowKeys={onShowKeys}
          />
        )}
      </Suspense>
    </>
  );
}
