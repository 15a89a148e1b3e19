import { Box, Button, Chip, Stack, Typography } from '@mui/material';
import { DEFAULT_PERSON_ID } from '@entretien/contracts/light';
import type { AccountView, AuditEntryView, CustomerView, InvitationView, Page } from '@entretien/contracts';
import { formatMoment } from '@entretien/core/basics';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { deleteAt, getJson } from '../../data/api.js';
import { deviceZone } from '../../data/clock.js';
import { useMe } from '../../data/me.js';
import { usePeople } from '../../data/queries.js';
import { ErrorState, LoadingSkeleton } from '../../components/States.js';
import { AccountDialog } from './AccountDialog.js';
import { CustomerDialog } from './CustomerDialog.js';
import { InviteDialog } from './InviteDialog.js';
import { PersonRecordsDialog } from './PersonRecords.js';
import { roleTexts } from './roles.js';

type Open =
  | { readonly dialog: 'invite' | 'customer' }
  | { readonly dialog: 'account'; readonly account: AccountView }
  | { readonly dialog: 'records'; readonly personId: string; readonly name: string }
  | { readonly dialog: 'sites'; readonly customer: CustomerView };

/** Who may do what: accounts, invitations, customers, and what of weight was done. */
export function People() {
  const { data: me } = useMe();
  const isLead = me?.access === 'on' && me.rights.includes('lead');
  const [open, setOpen] = useState<Open | null>(null);
  const close = () => setOpen(null);
  const ask = <Result,>(path: string) => ({
    queryKey: ['access', path],
    queryFn: () => getJson<Result>(path),
    enabled: isLead,
  });
  const accounts = useQuery(ask<readonly AccountView[]>('/accounts'));
  const invitations = useQuery(ask<readonly InvitationView[]>('/invitations'));
  const customers = useQuery(ask<readonly CustomerView[]>('/customers'));
  if (me && !isLead) return <NotHere hasAccounts={me.access === 'on'} />;
  const nameOfCustomer = (id: string | null) => customers.data?.find((one) => one.id === id)?.name ?? '';
  return (
    <Box sx={{ px: { xs: 2, md: 3.5 }, pt: 2, pb: 4, maxWidth: 1600, width: '100%' }}>
      <Stack
        direction="row"
        sx={{ justifyContent: 'space-between', alignItems: 'start', gap: 1, flexWrap: 'wrap', mb: 2 }}
      >
        <Typography variant="h1">People</Typography>
        <Button variant="contained" onClick={() => setOpen({ dialog: 'invite' })} sx={{ minHeight: 44 }}>
          Invite somebody
        </Button>
      </Stack>
      {accounts.isPending && <LoadingSkeleton lines={5} />}
      {accounts.isError && <ErrorState error={accounts.error} onRetry={() => void accounts.refetch()} />}
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', lg: 'minmax(0, 3fr) minmax(0, 2fr)' },
          columnGap: 6,
          rowGap: 4,
          alignItems: 'start',
        }}
      >
        <Stack sx={{ gap: 4 }}>
          {accounts.data && (
            <Box component="ul" aria-label="Accounts" sx={list}>
              {accounts.data.map((account) => (
                <Row
                  key={account.id}
                  name={account.name}
                  about={[
                    roleTexts[account.role][0],
                    account.role === 'customer' ? nameOfCustomer(account.customerId) : account.login,
                    account.id === me?.account?.id ? 'you' : '',
                  ]}
                  mark={account.closedAt === null ? null : 'closed'}
                  {...(account.closedAt === null
                    ? { action: 'Change', onAction: () => setOpen({ dialog: 'account', account }) }
                    : account.personId !== null
                      ? {
                          action: 'Records',
                          onAction: () =>
                            setOpen({ dialog: 'records', personId: account.personId!, name: account.name }),
                        }
                      : {})}
                />
              ))}
            </Box>
          )}
          <WithoutAccount accounts={accounts.data} onOpen={(who) => setOpen({ dialog: 'records', ...who })} />
          <Invitations invitations={invitations.data ?? []} />
          <Box component="section" aria-label="Customers">
            <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'center' }}>
              <Typography variant="h2">Customers</Typography>
              <Button onClick={() => setOpen({ dialog: 'customer' })} sx={{ minHeight: 44 }}>
                Add a customer
              </Button>
            </Stack>
            {customers.data?.length === 0 && (
              <Typography variant="body2" sx={{ color: 'text.secondary' }}>
                A customer sees how their own machines stand, and their reports; nothing of others.
              </Typography>
            )}
            <Box component="ul" sx={list}>
              {(customers.data ?? []).map((customer) => (
                <Row
                  key={customer.id}
                  name={customer.name}
                  about={[customer.siteIds.length === 1 ? '1 site' : `${customer.siteIds.length} sites`]}
                  action="Sites"
                  onAction={() => setOpen({ dialog: 'sites', customer })}
                />
              ))}
            </Box>
          </Box>
        </Stack>
        {isLead && <WhatWasDone />}
      </Box>
      {open?.dialog === 'invite' && <InviteDialog customers={customers.data ?? []} onClose={close} />}
      {open?.dialog === 'customer' && <CustomerDialog onClose={close} />}
      {open?.dialog === 'sites' && <CustomerDialog customer={open.customer} onClose={close} />}
      {open?.dialog === 'records' && (
        <PersonRecordsDialog personId={open.personId} name={open.name} onClose={close} />
      )}
      {open?.dialog === 'account' && <AccountDialog account={open.account} onClose={close} />}
    </Box>
  );
}

const list = { listStyle: 'none', p: 0, m: 0 } as const;

function NotHere({ hasAccounts }: { readonly hasAccounts: boolean }) {
  return (
    <Box sx={{ px: { xs: 2, md: 3.5 }, pt: 2, pb: 4, maxWidth: 700 }}>
      <Typography variant="h1">People</Typography>
      <Typography sx={{ color: 'text.secondary', my: 1 }}>
        {hasAccounts
          ? 'Who may do what is decided by a lead.'
          : 'There are no accounts: everybody at this machine may do everything. The server prints an address when it starts; open it once to make the first account.'}
      </Typography>
      <Button component={Link} to="/" variant="outlined" sx={{ minHeight: 44 }}>
        To Today
      </Button>
    </Box>
  );
}

interface RowProps {
  readonly name: string;
  readonly about: readonly string[];
  readonly mark?: string | null;
  readonly action?: string;
  readonly onAction?: () => void;
}

function Row({ name, about, mark = null, action, onAction }: RowProps) {
  return (
    <Stack
      component="li"
      direction="row"
      sx={{ alignItems: 'center', gap: 1.5, minHeight: 52, borderBottom: 1, borderColor: 'divider' }}
    >
      <Box sx={{ flex: 1, minWidth: 0 }}>
        <Typography sx={{ fontWeight: 650, overflowWrap: 'anywhere' }}>{name}</Typography>
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          {about.filter((part) => part !== '').join(' · ')}
        </Typography>
      </Box>
      {mark && <Chip size="small" label={mark} />}
      {action && (
        <Button onClick={onAction} aria-label={`${action}: ${name}`} sx={{ minHeight: 44, flex: 'none' }}>
          {action}
        </Button>
      )}
    </Stack>
  );
}

interface WithoutAccountProps {
  readonly accounts: readonly AccountView[] | undefined;
  readonly onOpen: (who: { readonly personId: string; readonly name: string }) => void;
}

/** People on record who never signed in here. */
function WithoutAccount({ accounts, onOpen }: WithoutAccountProps) {
  const { data: people = [] } = usePeople();
  const withAccount = new Set(accounts?.map(({ personId }) => personId));
  const others = people.filter(({ id }) => id !== DEFAULT_PERSON_ID && !withAccount.has(id));
  if (accounts === undefined || others.length === 0) return null;
  return (
    <Box component="section" aria-label="Without an account">
      <Typography variant="h2">Without an account</Typography>
      <Box component="ul" sx={list}>
        {others.map(({ id: personId, name }) => (
          <Row
            key={personId}
            name={name}
            about={['on record']}
            action="Records"
            onAction={() => onOpen({ personId, name })}
          />
        ))}
      </Box>
    </Box>
  );
}

function Invitations({ invitations }: { readonly invitations: readonly InvitationView[] }) {
  const client = useQueryClient();
  const withdraw = useMutation({
    mutationFn: (id: string) => deleteAt(`/invitations/${id}`),
    onSuccess: () => client.invalidateQueries({ queryKey: ['access'] }),
  });
  if (invitations.length === 0) return null;
  return (
    <Box component="section" aria-label="Open invitations">
      <Typography variant="h2">Open invitations</Typography>
      <Box component="ul" sx={list}>
        {invitations.map(({ id, name, role, expiresAt }) => (
          <Row
            key={id}
            name={name}
            about={[roleTexts[role][0], `until ${formatMoment(Date.parse(expiresAt), deviceZone())}`]}
            action="Withdraw"
            onAction={() => withdraw.mutate(id)}
          />
        ))}
      </Box>
    </Box>
  );
}

function WhatWasDone() {
  const audit = useQuery({
    queryKey: ['access', 'audit'],
    queryFn: () => getJson<Page<AuditEntryView>>('/audit?limit=50'),
  });
  return (
    <Box component="section" aria-label="What was done">
      <Typography variant="h2">What was done</Typography>
      {audit.isError && <ErrorState error={audit.error} onRetry={() => void audit.refetch()} />}
      <Box component="ol" sx={list}>
        {(audit.data?.items ?? []).map(({ seq, at, byName, what, about }) => (
          <Box component="li" key={seq} sx={{ borderTop: 1, borderColor: 'divider', py: 0.75 }}>
            <Typography variant="body2">
              <strong>{byName}</strong>: {what}
              {about === byName ? '' : `, ${about}`}
            </Typography>
            <Typography variant="caption" sx={{ color: 'text.secondary' }}>
              {formatMoment(Date.parse(at), deviceZone())}
            </Typography>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
