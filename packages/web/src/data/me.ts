import type { AccountView, MeView, SignIn } from '@entretien/contracts';
import { formatsOf } from '@entretien/core/basics';
import { useQuery, useQueryClient, type QueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { ApiProblem, getJson, onSignedOut, postJson, Unreachable } from './api.js';
import { sendAs } from './outbox/outbox.js';
import { usePreferences } from './preferences.js';

const KEY = ['me'] as const;
type Right = MeView['rights'][number];

/** Who is signed in; without accounts, that there are none. */
export function useMe() {
  return useQuery({ queryKey: KEY, queryFn: () => getJson<MeView>('/me'), staleTime: 5 * 60_000 });
}

/** Whether whoever is signed in has a right; until that is known, nothing is hidden: the server refuses anyway. */
export function useMay(right: Right): boolean {
  const { data } = useMe();
  return data === undefined || data.rights.includes(right);
}

/** The account that is signed in; null where nobody signs in here. */
export function useOwnAccount(): AccountView | null {
  return useMe().data?.account ?? null;
}

export type Gate = 'open' | 'signed-out' | 'customer';

/** What the frame shows: everything, the way in, or what is a customer’s own. */
export function useGate(): Gate {
  const client = useQueryClient();
  const { data } = useMe();
  const personId = data?.account?.personId ?? null;
  const setPerson = usePreferences((preferences) => preferences.setPerson);
  // What is recorded here is recorded by whoever is signed in, what waits for a connection too.
  useEffect(() => {
    if (personId !== null) setPerson(personId);
    sendAs(personId);
  }, [personId, setPerson]);
  const setWorkshop = usePreferences((preferences) => preferences.setWorkshop);
  const workshop = data?.workshop;
  useEffect(() => {
    if (workshop) setWorkshop({ units: workshop.units, formats: formatsOf(workshop.formats) });
  }, [workshop, setWorkshop]);
  useEffect(
    () =>
      onSignedOut(
        () => void client.invalidateQueries({ queryKey: KEY, exact: true }, { cancelRefetch: false }),
      ),
    [client],
  );
  if (data?.access !== 'on') return 'open';
  if (data.account === null) return 'signed-out';
  return data.account.role === 'customer' ? 'customer' : 'open';
}

/** Everything is asked anew, by whoever came in. */
export async function comeIn(client: QueryClient): Promise<void> {
  await forgetKept();
  await client.resetQueries();
}

export async function signIn(body: SignIn): Promise<AccountView> {
  return postJson<AccountView>('/sign-in', body);
}

/** Signs this browser out, and takes what was kept for its offline pages away: others use it too. */
export async function signOut(client: QueryClient): Promise<void> {
  await postJson('/sign-out', {});
  await forgetKept();
  await client.resetQueries();
}

async function forgetKept(): Promise<void> {
  if (!('caches' in window)) return;
  const names = await caches.keys().catch(() => []);
  await Promise.all(
    names.filter((name) => name.startsWith('entretien-data')).map((name) => caches.delete(name)),
  );
}

/** Whether the device itself said no: somebody let go of it, or it knows no key for here. */
export function isRefusedByDevice(error: unknown): boolean {
  return !(error instanceof ApiProblem) && !(error instanceof Unreachable);
}
