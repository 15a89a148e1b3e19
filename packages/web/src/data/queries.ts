import { FIRST_METER, type MeterScale } from '@entretien/core/hours';
import type {
  ForecastView,
  HoursView,
  IsolationView,
  CompressorView,
  FactView,
  BringBackView,
  FindingsView,
  FollowUpView,
  ModelNoteView,
  FleetStandingView,
  MeasurementView,
  MeterChangeView,
  Page,
  PaperView,
  HealthView,
  OpenWorkView,
  PartView,
  PersonView,
  PlanView,
  PointBriefView,
  PointView,
  PointWorkView,
  DeferralView,
  DevicesView,
  ReadingView,
  RepairView,
  ServiceView,
  SiteMetersView,
  SiteView,
  StandingView,
  StartingPointsView,
  StopView,
  VesselView,
  VisitBriefView,
  WorkshopSettings,
} from '@entretien/contracts';
import {
  useInfiniteQuery,
  useMutation,
  useQuery,
  useQueryClient,
  type QueryClient,
} from '@tanstack/react-query';
import { useEffect, useMemo } from 'react';
import { getJson, postJson, Unreachable } from './api.js';
import type { Waiting } from './outbox/keep-fact.js';

/** Time alone moves what is due: nothing shown is older than this. */
const FRESH_FOR_MS = 60_000;

export function usePeople({ enabled = true } = {}) {
  return useQuery({
    enabled,
    queryKey: ['people'],
    queryFn: () => allPages<PersonView>('/people'),
  });
}

export function useSites() {
  return useQuery({
    queryKey: ['sites'],
    queryFn: () => allPages<SiteView>('/sites'),
  });
}

/** Units fetched at once: enough for any screen, little enough to come at once. */
const FLEET_PAGE = 100;

/**
 * The units in service, most urgent first: the first page, and more when asked for.
 *
 * @param all whether to go on until every unit is there, as searching needs
 */
export function useFleet({ all = false } = {}) {
  const query = useInfiniteQuery({
    queryKey: ['fleet'],
    queryFn: ({ pageParam }) => getJson<FleetStandingView>(`/standings?limit=${FLEET_PAGE}${pageParam}`),
    initialPageParam: '',
    getNextPageParam: ({ nextCursor }) =>
      nextCursor === null ? null : `&cursor=${encodeURIComponent(nextCursor)}`,
    refetchInterval: FRESH_FOR_MS,
  });
  const { data, hasNextPage, isFetchingNextPage, isError, fetchNextPage } = query;
  const goOn = all && hasNextPage && !isFetchingNextPage && !isError;
  useEffect(() => {
    if (goOn) void fetchNextPage();
  }, [goOn, fetchNextPage]);
  const units = useMemo(() => data?.pages.flatMap((page) => page.items) ?? [], [data]);
  return { ...query, units, whole: data?.pages[0] };
}

export function useRetiredCompressors() {
  return useQuery({
    queryKey: ['retired'],
    queryFn: () => allPages<CompressorView>('/compressors?limit=200&show=retired'),
  });
}

async function allPages<Item>(path: string): Promise<readonly Item[]> {
  const items: Item[] = [];
  let cursor: string | null = '';
  while (cursor !== null) {
    const more = cursor && `${path.includes('?') ? '&' : '?'}cursor=${encodeURIComponent(cursor)}`;
    const page: Page<Item> = await getJson<Page<Item>>(path + more);
    items.push(...page.items);
    cursor = page.nextCursor;
  }
  return items;
}

const compressorKey = (id: string) => ['unit', id];

export function useCompressor(id: string | undefined) {
  return useQuery({
    queryKey: [...compressorKey(id ?? ''), 'plate'],
    enabled: id !== undefined,
    queryFn: () => getJson<CompressorView>(`/compressors/${id}`),
    retry: false,
  });
}

/** What is due on a unit, with the reasons. */
/** The scale that hours of a unit are said on; that of a first meter until it is known. */
export function useMeterScale(id: string): MeterScale {
  return useStanding(id).data?.meter ?? FIRST_METER;
}

export function useStanding(id: string) {
  return useQuery({
    queryKey: [...compressorKey(id), 'standing'],
    queryFn: () => getJson<StandingView>(`/compressors/${id}/standing?explain=yes`),
    refetchInterval: FRESH_FOR_MS,
    retry: false,
  });
}

export function usePlan(id: string) {
  return useQuery({
    queryKey: [...compressorKey(id), 'plan'],
    queryFn: () => getJson<PlanView>(`/compressors/${id}/plan`),
    retry: false,
  });
}

/** The latest facts of a unit: enough to judge a new figure by, and to fill its logbook. */
export function useCompressorFacts(id: string) {
  return useQuery({
    queryKey: [...compressorKey(id), 'facts'],
    queryFn: async () => {
      const list = <Item>(kind: string) => getJson<Page<Item>>(`/compressors/${id}/${kind}?limit=100`);
      const [readings, services, meterChanges, measurements, deferrals, startingPoints] = await Promise.all([
        list<ReadingView>('readings'),
        list<ServiceView>('services'),
        list<MeterChangeView>('meter-changes'),
        list<MeasurementView>('measurements'),
        list<DeferralView>('deferrals'),
        list<StartingPointsView>('starting-points'),
      ]);
      const stands = ({ voided }: FactView) => voided === undefined;
      return {
        readings: readings.items.filter(stands),
        services: services.items.filter(stands),
        meterChanges: meterChanges.items.filter(stands),
        measurements: measurements.items.filter(stands),
        deferrals: deferrals.items.filter(stands),
        startingPoints: startingPoints.items.filter(stands),
      };
    },
    retry: false,
  });
}

export type CompressorFacts = NonNullable<ReturnType<typeof useCompressorFacts>['data']>;

/** Measurements of a unit shown at once: years of them. */
const MEASUREMENTS_PAGE = 200;

/** The latest measurements of a unit, the latest first; those of one check, or of all. */
export function useMeasurements(id: string | undefined, check?: string) {
  return useQuery({
    queryKey: [...compressorKey(id ?? ''), 'measurements', check ?? 'all'],
    queryFn: () =>
      getJson<Page<MeasurementView>>(
        `/compressors/${id}/measurements?limit=${MEASUREMENTS_PAGE}${check === undefined ? '' : `&check=${check}`}`,
      ).then((page) => page.items),
    enabled: id !== undefined,
    retry: false,
  });
}

/** What was lately judged watch, act or stop. */
export function useFindings() {
  return useQuery({ queryKey: ['findings'], queryFn: () => getJson<FindingsView>('/findings') });
}

/** The receivers and cylinders that a unit fills. */
export function useVessels(compressorId: string) {
  return useQuery({
    queryKey: [...compressorKey(compressorId), 'vessels'],
    queryFn: () => allPages<VesselView>(`/vessels?compressorId=${compressorId}`),
    retry: false,
  });
}

/** Every receiver, bank and cylinder in use. */
export function useAllVessels() {
  return useQuery({
    queryKey: ['unit', 'vessels'],
    queryFn: () => allPages<VesselView>('/vessels'),
  });
}

/** The meters of a site in walking order. */
export function useSiteMeters(siteId: string) {
  return useQuery({
    queryKey: ['meters', siteId],
    queryFn: () => getJson<SiteMetersView>(`/sites/${siteId}/meters`),
    retry: false,
  });
}

/** Days of forecast that a chart shows. */
const AHEAD_DAYS = 180;

/** The continuous run hours of a unit, and how they are likely to go on. */
export function useHours(id: string) {
  return useQuery({
    queryKey: [...compressorKey(id), 'hours'],
    queryFn: () => getJson<HoursView>(`/compressors/${id}/hours?ahead=${AHEAD_DAYS}`),
  });
}

/** When a unit reaches a figure of run hours, and what that rests on. */
export function useForecast(id: string, hours: number) {
  return useQuery({
    queryKey: [...compressorKey(id), 'forecast', hours],
    queryFn: () => getJson<ForecastView>(`/compressors/${id}/forecast?hours=${hours}`),
  });
}

/** Visits, the latest first. */
/** The latest visits. */
export function useVisits(query = '') {
  return useQuery({
    queryKey: ['visits', query],
    queryFn: () => getJson<Page<VisitBriefView>>(`/visits?limit=100${query}`).then((page) => page.items),
  });
}

/** Every visit that is planned or under way, however many newer ones there are. */
export function useOpenVisits() {
  return useQuery({
    queryKey: ['visits', 'open'],
    queryFn: () => allPages<VisitBriefView>('/visits?show=open&limit=100'),
  });
}

/** The catalogue, with what the van holds. */
export function useParts() {
  return useQuery({
    queryKey: ['parts'],
    queryFn: () => allPages<PartView>('/parts'),
  });
}

/** How the workshop has the guard set, and what stands on its papers. */
export function useSettings() {
  return useQuery({ queryKey: ['settings'], queryFn: () => getJson<WorkshopSettings>('/settings') });
}

/** How the server is; asked once, for it seldom changes while a page is open. */
export function useServerHealth() {
  return useQuery({
    queryKey: ['health'],
    queryFn: () => getJson<HealthView>('/health'),
    staleTime: Infinity,
    retry: false,
  });
}

/** What is open anywhere: repairs, visits, and what the van is short of. */
export function useOpenWork() {
  return useQuery({
    queryKey: ['open-work'],
    queryFn: () => getJson<OpenWorkView>('/open-work'),
    refetchInterval: FRESH_FOR_MS,
  });
}

/** What of it is open on one unit: repairs, and visits in which it is not signed for. */
export function useOpenWorkOf(compressorId: string) {
  const { data } = useOpenWork();
  return useMemo(
    () => ({
      repairs: (data?.repairs ?? []).filter((repair) => repair.compressorId === compressorId),
      visits: (data?.visits ?? []).filter(({ units }) =>
        units.some((unit) => unit.compressorId === compressorId && unit.state === 'open'),
      ),
    }),
    [data, compressorId],
  );
}

/** Faults of a unit, and what was changed on it. */
export function useRepairs(compressorId: string) {
  return useQuery({
    queryKey: [...compressorKey(compressorId), 'repairs'],
    queryFn: () => allPages<RepairView>(`/compressors/${compressorId}/repairs`),
    retry: false,
  });
}

/** A repair with all that was done about it. */
export function useRepair(id: string | null) {
  return useQuery({
    queryKey: ['unit', 'repair', id],
    enabled: id !== null,
    queryFn: () => getJson<RepairView>(`/repairs/${id}`),
    retry: false,
  });
}

/** Everything in the fleet that must not be used. */
export function useStops() {
  return useQuery({
    queryKey: ['stops'],
    queryFn: () => getJson<readonly StopView[]>('/stops'),
    refetchInterval: FRESH_FOR_MS,
  });
}

/** How often it is looked whether devices answer, ms. */
const DEVICES_MS = 15_000;

/** Every device that is asked, how it answers, and what of it was refused. */
export function useDevices() {
  return useQuery({
    queryKey: ['devices', 'all'],
    queryFn: () => getJson<DevicesView>('/devices'),
    refetchInterval: DEVICES_MS,
    retry: false,
  });
}

/** The devices of a unit. */
export function useDevicesOf(compressorId: string) {
  return useQuery({
    queryKey: ['devices', compressorId],
    queryFn: () => getJson<DevicesView>(`/compressors/${compressorId}/devices`),
    refetchInterval: DEVICES_MS / 3,
    retry: false,
  });
}

/** What is to be looked at again anywhere: joints that were opened, new belts. */
export function useFollowUps() {
  return useQuery({
    queryKey: ['follow-ups'],
    queryFn: () => getJson<readonly FollowUpView[]>('/follow-ups'),
    refetchInterval: FRESH_FOR_MS,
  });
}

/** What of it is on one unit, what is too early included. */
export function useFollowUpsOf(compressorId: string) {
  return useQuery({
    queryKey: [...compressorKey(compressorId), 'follow-ups'],
    queryFn: () => getJson<readonly FollowUpView[]>(`/follow-ups?compressorId=${compressorId}`),
    retry: false,
  });
}

/** Since when a unit has stood, and what it is brought back by; asked only of what stands still. */
export function useBringBack(compressorId: string, isStill: boolean) {
  return useQuery({
    queryKey: [...compressorKey(compressorId), 'bring-back'],
    queryFn: () => getJson<BringBackView>(`/compressors/${compressorId}/bring-back`),
    enabled: isStill,
    retry: false,
  });
}

/** What is known of a unit’s model, told at whichever of its sisters. */
export function useModelNotes(compressorId: string) {
  return useQuery({
    queryKey: [...compressorKey(compressorId), 'model-notes'],
    queryFn: () => getJson<readonly ModelNoteView[]>(`/compressors/${compressorId}/model-notes`),
    retry: false,
  });
}

/** What stands against using one unit. */
export function useStopsOf(compressorId: string): readonly StopView[] {
  const { data } = useStops();
  return useMemo(
    () => (data ?? []).filter((stop) => stop.compressorId === compressorId),
    [data, compressorId],
  );
}

/** The papers of a unit: its manual, its label, how it sounded. */
export function usePapers(compressorId: string) {
  return useQuery({
    queryKey: [...compressorKey(compressorId), 'papers'],
    queryFn: () => getJson<Page<PaperView>>(`/compressors/${compressorId}/papers`).then((page) => page.items),
    retry: false,
  });
}

/** How the isolation of a unit stands, with what was said of it lately. */
export function useIsolation(compressorId: string) {
  return useQuery({
    queryKey: [...compressorKey(compressorId), 'isolation'],
    queryFn: () => getJson<IsolationView>(`/compressors/${compressorId}/isolation`),
    retry: false,
  });
}

/** Everything that a new fact of a unit can change on any page. */
export async function refresh(client: QueryClient): Promise<void> {
  await Promise.all(
    [
      'unit',
      'fleet',
      'retired',
      'sites',
      'meters',
      'findings',
      'visits',
      'parts',
      'logbook',
      'stops',
      'open-work',
      'follow-ups',
      'points',
      'filling',
      'devices',
    ].map((key) => client.invalidateQueries({ queryKey: [key] })),
  );
}

/** Does something for which nothing has to be said, then lets every page look again. */
export function useDo() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (path: string) => postJson(path, {}),
    onSuccess: () => refresh(client),
  });
}

/** Sends a fact, then lets every page that shows it look again. */
/** The points of use: all of them, of a site, or fed by a unit. */
export function usePoints(query = '') {
  return useQuery({
    queryKey: ['points', query],
    queryFn: () => allPages<PointBriefView>(`/points${query}`),
    refetchInterval: FRESH_FOR_MS,
    retry: false,
  });
}

export function usePoint(id: string) {
  return useQuery({
    queryKey: ['points', 'one', id],
    queryFn: () => getJson<PointView>(`/points/${id}`),
    refetchInterval: FRESH_FOR_MS,
    retry: false,
  });
}

/** What was done at a point of use, the latest first. */
export function usePointWork(id: string) {
  return useQuery({
    queryKey: ['points', 'work', id],
    queryFn: () => getJson<Page<PointWorkView>>(`/points/${id}/work`).then((page) => page.items),
    retry: false,
  });
}

/** A class that says what may be sent; of several kinds, which one follows from what is sent. */
export type Contract<Body extends object> =
  (new () => Body) | { readonly of: (body: Body) => new () => object };

/**
 * Sends what a form holds. It is read by its contract first, as the server will read it: what is wrong stands
 * beside its field in the same words, connection or not, and nothing is sent.
 */
export function usePost<Body extends object, Result>(contract: Contract<Body>, path: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: async (body: Body) => {
      await readByContract(contract, body);
      return postJson<Result>(path, body);
    },
    onSuccess: () => refresh(client),
  });
}

/**
 * The same for what cannot wait for a connection: without one it is kept on this device and sent later.
 *
 * @param waiting what the tray says of it meanwhile; left out: it is not kept

 * @returns what the server answered; null where it was kept
 */
export function usePostOrKeep<Body extends { readonly id: string }, Result>(
  contract: Contract<Body>,
  path: string,
  waiting: Waiting | undefined,
) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: async (body: Body) => {
      await readByContract(contract, body);
      try {
        return await postJson<Result>(path, body);
      } catch (error) {
        if (waiting === undefined || !(error instanceof Unreachable)) throw error;
        const { keepFact } = await import('./outbox/keep-fact.js');
        await keepFact(path, body, waiting);
        return null;
      }
    },
    onSuccess: () => refresh(client),
  });
}

async function readByContract<Body extends object>(contract: Contract<Body>, body: Body): Promise<void> {
  const { refuseMalformed } = await import('./refuse-malformed.js');
  refuseMalformed('of' in contract ? contract.of(body) : contract, body);
}

export function useAddPerson() {
  const client = useQueryClient();
  return useMutation({
    // With its rules, which nothing needs before somebody writes.
    mutationFn: async (person: { id: string; name: string }) => {
      const { addPerson } = await import('./add-person.js');
      return addPerson(person);
    },
    onSuccess: () => client.invalidateQueries({ queryKey: ['people'] }),
  });
}
