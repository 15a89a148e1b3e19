import { createHash } from 'node:crypto';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { RecordPointWork, RecordReading, RecordService } from '@entretien/contracts';
import {
  DAY_MS,
  formatDay,
  formatInstant,
  HOUR_MS,
  localDayAt,
  startOfLocalDay,
  type DayNumber,
} from '@entretien/core/basics';
import {
  CompressorsService,
  createApp,
  Database,
  MeasurementsService,
  PapersService,
  PartsService,
  PeopleService,
  PlansService,
  PointsService,
  ReadingsService,
  RepairsService,
  StopsService,
  ServicesService,
  SitesService,
  StandingsService,
  FillingService,
  ProblemError,
  VesselsService,
  VisitsService,
  DeferralsService,
  FollowUpsService,
  GatewayService,
  ModelNotesService,
} from '@entretien/server';
import { EXAMPLE_REGISTERS } from '@entretien/core/gateway';
import { withPractice, type ServicePlan } from '@entretien/core/plan';
import { honestCourse, type IsolateBody } from '@entretien/core/isolation';
import type { DataPlate } from '@entretien/core/machine';
import { worthPlanning } from '@entretien/core/visit';
import seedrandom from 'seedrandom';
import { Instruments, type Measured, type MeasuredVisit } from './measuring.js';
import { people, sites, type SiteStory, type CompressorStory, type CylinderStory } from './story.js';
import { papers } from './papers.js';
import { points, POINTS_REGISTERED, pointTelling } from './points.js';
import { parts } from './van.js';
import { creameryVisit, visitTasks } from './visit-story.js';

export { FolderLock, systemClock } from '@entretien/server';

const TIME_ZONE = 'Europe/Zurich';
const SEED = 'haldris';

/** Days ago that the vessels came into the register. */
const VESSELS_REGISTERED = 360;

/** Days between two fills, when the snow lies and when it does not. */
const [EVERY_WINTER_DAYS, EVERY_SUMMER_DAYS] = [3, 10];

/** Days ago of the visit that is told step by step. */
const VISITED = 3;

/** The machine that reads itself, and where its controller is asked. */
const SELF_READING = { tag: 'OG-1', port: 1502 } as const;
/** Says what stands in for that controller. */
const STAND_IN_ORDER = 'stand-in.json';

/** A moment of the day at which readings and visits happen, in hours. */
const WORKING_HOUR = 9;

/** What was written, to say so. */
export interface DemoSummary {
  readonly sites: number;
  readonly units: number;
  readonly readings: number;
  readonly services: number;
  readonly measurements: number;
}

/**
 * Tells the story of the valley up to `now` into a data folder, through the same services that the pages use,
 * with the server's clock standing at the day on which each thing happens.
 */
export async function generateDemo(dataDir: string, now: number): Promise<DemoSummary> {
  let clock = now;
  const settings = { host: '127.0.0.1', port: 0, dataDir, timeZone: TIME_ZONE };
  const app = await createApp({ settings, clock: () => clock });
  const today = localDayAt(now, TIME_ZONE);
  const valley = new Valley(
    {
      sites: app.get(SitesService),
      people: app.get(PeopleService),
      compressors: app.get(CompressorsService),
      readings: app.get(ReadingsService),
      services: app.get(ServicesService),
      measurements: app.get(MeasurementsService),
      standings: app.get(StandingsService),
      plans: app.get(PlansService),
      waiting: app.get(DeferralsService),
      vessels: app.get(VesselsService),
      points: app.get(PointsService),
      filling: app.get(FillingService),
      parts: app.get(PartsService),
      repairs: app.get(RepairsService),
      stops: app.get(StopsService),
      visits: app.get(VisitsService),
      followUps: app.get(FollowUpsService),
      modelNotes: app.get(ModelNotesService),
    },
    today,
    (moment) => (clock = Math.min(moment, now)),
  );
  // One transaction for the whole story: ten seconds of waiting for the disk become one.
  const summary = app.get(Database).transact(() => valley.recordAll());
  // Their files are looked through and written one by one.
  clock = now;
  for (const { tag, kind, title, draw } of papers) {
    const about = { id: idOf('paper', tag, title), kind, title };
    await app.get(PapersService).add(idOf('unit', tag), about, await draw(new Date(now)), valley.lead);
  }
  valley.readItself(app.get(GatewayService), dataDir);
  await app.close();
  return summary;
}

interface Services {
  readonly sites: SitesService;
  readonly people: PeopleService;
  readonly compressors: CompressorsService;
  readonly readings: ReadingsService;
  readonly services: ServicesService;
  readonly measurements: MeasurementsService;
  readonly standings: StandingsService;
  readonly plans: PlansService;
  readonly waiting: DeferralsService;
  readonly vessels: VesselsService;
  readonly points: PointsService;
  readonly filling: FillingService;
  readonly parts: PartsService;
  readonly repairs: RepairsService;
  readonly stops: StopsService;
  readonly visits: VisitsService;
  readonly followUps: FollowUpsService;
  readonly modelNotes: ModelNotesService;
}

/** A machine while its story is told. */
interface LivingCompressor {
  readonly id: string;
  readonly siteId: string;
  readonly story: CompressorStory;
  readonly site: SiteStory;
  /** What its meter shows. */
  meter: number;
  /** What its second counter shows, where it has one. */
  loaded: number;
  /** Hours run since it was new, whatever its meter shows. */
  ran: number;
  readonly instruments: Instruments;
  /** How its present week differs from its habit, as a logarithm. */
  mood: number;
  readonly random: () => number;
  readonly moods: () => number;
  readonly nextReading: { day: DayNumber };
  readonly nextVisit: { day: DayNumber };
}

class Valley {
  private readonly living: LivingCompressor[] = [];
  private readonly summary = { sites: 0, units: 0, readings: 0, services: 0, measurements: 0 };
  private readonly technicians: string[] = [];

  constructor(
    private readonly write: Services,
    private readonly today: DayNumber,
    private readonly setClock: (moment: number) => void,
  ) {}

  /** Who keeps the papers. */
  get lead(): string {
    return this.technicians[0]!;
  }

  recordAll(): DemoSummary {
    const first = Math.max(...sites.flatMap((site) => site.units.map(firstDayAgo)));
    this.at(this.today - first, 7);
    for (const person of people) {
      this.technicians.push(this.write.people.add({ id: idOf('person', person.name), ...person }).id);
    }
    const siteIds = sites.map((site) => this.addSite(site));
    const { living } = this;
    for (let day = this.today - first; day <= this.today; day++) {
      sites.forEach((site, index) => {
        for (const story of site.units) {
          if (this.today - firstDayAgo(story) === day)
            living.push(this.register(story, site, siteIds[index]!, day));
        }
      });
      for (const unit of living) this.liveDay(unit, day);
      sites.forEach((site, index) => {
        this.fillDay(site, siteIds[index]!, day);
        this.pointDay(site, siteIds[index]!, day);
      });
      if (this.today - day === VISITED) {
        this.stockVan(day);
        this.visitCreamery(
          living.find(({ story }) => story.plate.tag === 'HC-1')!,
          day,
        );
        this.recordRepairs(day);
        this.recordStops(day);
      }
      if (this.today - day === VESSELS_REGISTERED) {
        this.at(day, 18);
        sites.forEach((site, index) => this.addVessels(site, siteIds[index]!));
      }
    }
    this.planVisit(
      living.find(({ story }) => story.plate.tag === 'VB-2')!,
      this.today,
    );
    return this.summary;
  }

  /** The catalogue, and what the van carries. */
  private stockVan(day: DayNumber): void {
    this.at(day, 7);
    for (const { fits, ...part } of parts) {
      const units = fits.map((tag) => idOf('unit', tag));
      this.write.parts.add({ ...part, id: idOf('part', part.number), fits: units }, this.technicians[0]!);
    }
  }

  /** A guided visit from its first step to the signature. */
  private visitCreamery({ id, siteId, meter }: LivingCompressor, day: DayNumber): void {
    this.at(day, WORKING_HOUR);
    const [by] = this.technicians as [string];
    const visit = idOf('visit', 'HC-1', day);
    const units = [{ compressorId: id, tasks: [...visitTasks] }];
    this.write.visits.plan({ id: visit, siteId, plannedOn: formatDay(day), units }, by);
    const plate = this.write.compressors.find(id) as DataPlate;
    for (const { minute, body } of creameryVisit(plate, Math.round(meter * 10) / 10)) {
      const doneAt = this.at(day, WORKING_HOUR + minute / 60);
      const { kind, ...details } = body;
      const step = {
        id: idOf('step', visit, minute, kind),
        compressorId: id,
        kind,
        doneAt,
        session: 'told',
        details,
      };
      this.write.visits.record(visit, step, by);
    }
  }

  /** A fault mended and proved long ago, one that waits, and what was made easier. */
  private recordRepairs(day: DayNumber): void {
    const [by] = this.technicians as [string];
    const open = (
      tag: string,
      ago: number,
      kind: 'fault' | 'improvement',
      found: string,
      station: string,
    ) => {
      const foundAt = formatInstant(startOfLocalDay(day - ago, TIME_ZONE) + WORKING_HOUR * HOUR_MS);
      const repair = { id: idOf('repair', tag, found), kind, found, foundAt, station };
      return this.write.repairs.report(idOf('unit', tag), repair, by).id;
    };
    this.at(day, WORKING_HOUR + 4);
    open(
      'SP-1',
      20,
      'improvement',
      'Drain of the final separator brought out to the front',
      'final-separator',
    );
    const slow = open('HC-2', 6, 'fault', 'Slow to fill: the laboratory waits for air', 'stage-1');
    const at = formatInstant(startOfLocalDay(day, TIME_ZONE) + (WORKING_HOUR + 3) * HOUR_MS);
    const entry = {
      id: idOf('entry', slow),
      kind: 'cause' as const,
      at,
      text: 'Ring worn: pump-up time grown by a third',
    };
    this.write.repairs.add(slow, entry, by);
    this.interruptRepair(slow, 'HC-2', day);
  }

  /** The head comes off, somebody telephones, and the isolation is looked at again before it goes on. */
  private interruptRepair(repair: string, tag: string, day: DayNumber): void {
    const [by] = this.technicians as [string];
    const begun = startOfLocalDay(day, TIME_ZONE) + (WORKING_HOUR + 4.5) * HOUR_MS;
    const plate = this.write.compressors.find(idOf('unit', tag)) as DataPlate;
    const session = 'told';
    const format = (seconds: number, { kind, ...details }: IsolateBody) => {
      const doneAt = this.at(day, WORKING_HOUR + 4.5 + seconds / 3600);
      const id = idOf('repair step', repair, seconds, kind);
      this.write.repairs.step(repair, { id, kind, doneAt, session, details }, by);
    };
    const step = (seconds: number, code: string) => {
      const at = formatInstant(begun + seconds * 1000);
      this.at(day, WORKING_HOUR + 4.5 + seconds / 3600);
      const text = `ring-kit/${code}`;
      this.write.repairs.add(
        repair,
        { id: idOf('entry', repair, code), kind: 'step', at, text, session },
        by,
      );
    };
    const course = honestCourse(plate, ['stages']);
    for (const { seconds, body } of course) format(seconds, body);
    const end = course.at(-1)!.seconds;
    step(end + 240, 'fan-off');
    format(end + 2400, { kind: 'isolate', step: 'still', confirmed: true, answer: 'holds' });
    step(end + 2460, 'head-off');
  }

  /** What must not be used: a relief valve that stuck, and a panel side that is back since its hose was renewed. */
  private recordStops(day: DayNumber): void {
    const [by] = this.technicians as [string];
    const daysBefore = (days: number) =>
      formatInstant(startOfLocalDay(day - days, TIME_ZONE) + WORKING_HOUR * HOUR_MS);
    this.at(day, WORKING_HOUR + 7);
    const out = idOf('out of service', 'SP-1');
    this.write.stops.takeOut(
      idOf('unit', 'SP-1'),
      {
        id: out,
        since: daysBefore(24),
        scope: 'side',
        place: '300 bar',
        ground: 'other',
        why: 'Fill hose past its date',
        toShow: 'A new hose, tight at full pressure',
        informed: 'Rescue lead',
      },
      by,
    );
    const reason = 'New hose with its certificate, tight at 300 bar';
    const back = { id: idOf('back', 'SP-1'), at: daysBefore(17), ends: out, decidedBy: 'Jorun Aske', reason };
    this.write.stops.bringBack(idOf('unit', 'SP-1'), back, by);
    this.write.measurements.record(
      idOf('unit', 'LD-2'),
      {
        id: idOf('relief-valve', 'LD-2'),
        check: 'relief-valve',
        takenAt: formatInstant(startOfLocalDay(day, TIME_ZONE) + (WORKING_HOUR + 6) * HOUR_MS),
        values: { opens: 'no', reseats: 'tight' },
      },
      by,
    );
    this.summary.measurements += 1;
  }

  /** What comes next: a visit that is planned and not begun. */
  private planVisit({ id, siteId }: LivingCompressor, day: DayNumber): void {
    this.at(day, 7);
    const due = worthPlanning(this.write.standings.of(id).tasks);
    const visit = { id: idOf('visit', 'VB-2', day), siteId, plannedOn: formatDay(day) };
    this.write.visits.plan(
      { ...visit, units: [{ compressorId: id, tasks: [...due] }] },
      this.technicians[0]!,
    );
  }

  /** The receivers and cylinders of a site come into the register with their papers, a year ago. */
  private addVessels({ vessels = [] }: SiteStory, siteId: string): void {
    for (const { filledBy, tested, inspected, ...vessel } of vessels) {
      const registered = {
        ...vessel,
        id: idOf('vessel', vessel.tag),
        siteId,
        compressorIds: filledBy.map((tag) => idOf('unit', tag)),
        lastTestOn: formatDay(this.today - tested),
        lastInspectionOn: formatDay(this.today - inspected),
      };
      this.write.vessels.add(registered, this.technicians[0]!);
    }
  }

  /** Cylinders come into the register, and are filled now and then: more of them in winter. */
  private fillDay({ cylinders }: SiteStory, siteId: string, day: DayNumber): void {
    const ago = this.today - day;
    if (!cylinders || ago > cylinders.registered) return;
    const { filledBy, registered, list } = cylinders;
    const set = idOf('unit', filledBy);
    if (ago === registered) {
      this.at(day, 17);
      for (const { tested, ...cylinder } of list) {
        const papers = { lastTestOn: formatDay(this.today - tested), kind: 'cylinder' as const };
        const one = {
          ...cylinder,
          ...papers,
          id: idOf('vessel', cylinder.tag),
          siteId,
          compressorIds: [set],
        };
        this.write.vessels.add(one, this.technicians[0]!);
      }
    }
    const month = new Date(day * DAY_MS).getUTCMonth();
    const every = month < 3 || month > 10 ? EVERY_WINTER_DAYS : EVERY_SUMMER_DAYS;
    if (ago === 0 || day % every !== 0) return;
    const sound = list.filter(
      ({ gas, testEveryMonths }) => gas === undefined && testEveryMonths !== undefined,
    );
    const random = seedrandom(`${SEED} fills ${day}`);
    for (let turn = 0; turn < 2; turn++) {
      const cylinder = sound[(day + turn * 3) % sound.length]!;
      this.fill(set, cylinder, day, 16 + turn / 4, random);
    }
  }

  /** Points of use come into the register, and are worked at now and then. */
  private pointDay({ name }: SiteStory, siteId: string, day: DayNumber): void {
    const ago = this.today - day;
    for (const story of points.filter(({ site }) => site === name)) {
      const { site: _site, fedBy, through = [], work, ...plate } = story;
      const id = idOf('point', plate.tag);
      const known = {
        ...plate,
        siteId,
        compressorIds: fedBy.map((tag) => idOf('unit', tag)),
        vesselIds: through.map((tag) => idOf('vessel', tag)),
        fittedOn: formatDay(this.today - POINTS_REGISTERED),
      };
      if (ago === POINTS_REGISTERED) {
        this.at(day, 18);
        this.write.points.add({ ...known, id }, this.technicians[0]!);
      }
      for (const done of work.filter((one) => one.ago === ago)) {
        const end = Date.parse(this.at(day, 15));
        const telling = { id: idOf('point-work', plate.tag, day), ...pointTelling(known, done, end) };
        this.write.points.record(id, telling as RecordPointWork, this.technicians[1]!);
      }
    }
  }

  private fill(
    set: string,
    cylinder: CylinderStory,
    day: DayNumber,
    hour: number,
    random: () => number,
  ): void {
    const fromBar = Math.round(20 + 90 * random());
    const toBar = cylinder.ratedBar!;
    // What the set gives at its height, by its plate; a little slower or quicker each time.
    const minutes = ((toBar - fromBar) * cylinder.volumeL!) / 235 / (0.93 + 0.14 * random());
    const startedAt = this.at(day, hour);
    const endedAt = this.at(day, hour + minutes / 60);
    const looked = ['valve', 'connector', 'secured', 'built-up'] as const;
    const fill = {
      id: idOf('fill', cylinder.tag, day),
      vesselId: idOf('vessel', cylinder.tag),
      startedAt,
      endedAt,
      fromBar,
      toBar,
      connectorBar: cylinder.connectorBar!,
      looked: [...looked],
      outcome: 'full' as const,
    };
    try {
      this.write.filling.record(set, fill, this.technicians[day % 2]!);
    } catch (problem) {
      // On days on which the set must fill nothing, nobody does.
      if (!(problem instanceof ProblemError) || problem.status !== 422) throw problem;
    }
  }

  /** Another way is chosen in a school of the plan. */
  private choose({ id, story }: LivingCompressor, day: DayNumber): void {
    this.at(day, WORKING_HOUR - 0.5);
    const { choices = {}, note = '' } = story.ways ?? {};
    const before = this.write.plans.find(id);
    const plate = this.write.compressors.find(id) as DataPlate;
    let changed: ServicePlan = { tasks: before.tasks };
    for (const [practice, option] of Object.entries(choices))
      changed = withPractice(changed, plate, practice, option);
    const saved = { id: idOf('plan', story.plate.tag, day), ...changed, note };
    this.write.plans.save(id, saved, `"${before.latest}"`, this.technicians[0]!);
  }

  private deferral(unit: LivingCompressor, day: DayNumber): void {
    const { ago: _ago, days, ...deferral } = unit.story.deferral!;
    const deferredAt = this.at(day, WORKING_HOUR + 3);
    const untilOn = formatDay(day + days);
    const id = idOf('put off', unit.story.plate.tag, day);
    this.write.waiting.deferral(unit.id, { ...deferral, id, deferredAt, untilOn }, this.technicianOf(unit));
  }

  private addSite({ name, altitudeM, address, contact }: SiteStory): string {
    this.summary.sites += 1;
    const site = { id: idOf('site', name), name, altitudeM, address, contact, timeZone: TIME_ZONE };
    return this.write.sites.add(site, this.technicians[0]!).id;
  }

  private register(
    story: CompressorStory,
    site: SiteStory,
    siteId: string,
    day: DayNumber,
  ): LivingCompressor {
    this.at(day, 8);
    const id = idOf('unit', story.plate.tag);
    const commissionedOn = formatDay(this.today - story.commissioned);
    this.write.compressors.add({ ...story.plate, id, siteId, commissionedOn }, this.technicians[0]!);
    this.summary.units += 1;
    const unit: LivingCompressor = {
      id,
      siteId,
      story,
      site,
      meter: story.meterStartsAt ?? 0,
      loaded: (story.meterStartsAt ?? 0) * (story.use.loadedShare ?? 0),
      ran: story.meterStartsAt ?? 0,
      instruments: new Instruments(story, site.altitudeM, `${SEED} ${story.plate.tag} instruments`),
      mood: 0,
      random: seedrandom(`${SEED} ${story.plate.tag}`),
      moods: seedrandom(`${SEED} ${story.plate.tag} moods`),
      nextReading: { day },
      // Visits fall so that the last one lies as many days ago as the story says.
      nextVisit: { day: day + ((this.today - site.lastVisit - day) % site.visitEvery) },
    };
    return unit;
  }

  private liveDay(unit: LivingCompressor, day: DayNumber): void {
    const { story } = unit;
    const ago = this.today - day;
    const visited = day === unit.nextVisit.day && ago >= unit.site.lastVisit;
    if (story.meterReplaced === ago) this.replaceMeter(unit, day);
    if (story.ways?.since === ago) this.choose(unit, day);
    if (story.neglected?.doneThen && story.neglected.since === ago) this.doForTheLastTime(unit, day);
    const unread = story.unreadSince !== undefined && ago < story.unreadSince;
    if ((visited || day >= unit.nextReading.day) && !unread && story.plate.hasHourMeter !== false) {
      this.readMeter(unit, day);
      unit.nextReading.day = day + 7 + Math.floor(unit.random() * 8);
    }
    for (const { about, text } of (story.learned ?? []).filter((one) => one.ago === ago)) {
      this.at(day, WORKING_HOUR + 4);
      const note = { id: idOf('model note', story.plate.tag, text), about, text };
      this.write.modelNotes.record(unit.id, note, this.technicianOf(unit));
    }
    if (visited) {
      this.lookAgain(unit, day);
      const visit = { ran: unit.ran, season: seasonOf(day), daysAgo: ago };
      const isRunning = story.use.idleSince === undefined || ago > story.use.idleSince;
      if (isRunning && !unread) this.measure(unit, day, WORKING_HOUR + 0.5, unit.instruments.before(visit));
      this.serve(unit, day, visit);
      unit.nextVisit.day = day + unit.site.visitEvery;
    }
    if (story.deferral?.ago === ago) this.deferral(unit, day);
    const hours = this.hoursOf(unit, day);
    unit.meter += hours;
    unit.ran += hours;
    unit.loaded += hours * (story.use.loadedShare ?? 0);
  }

  /** Hours run on a day: the habit of the weekday and month, spread, never more than the day is long. */
  private hoursOf(unit: LivingCompressor, day: DayNumber): number {
    const { story, random } = unit;
    const { perDay, workDays, byMonth, spread, idleSince, raised } = story.use;
    const share = 1 + spread * (random() + random() + random() - 1.5);
    if (idleSince !== undefined && this.today - day < idleSince) return 0;
    const times = raised !== undefined && this.today - day < raised.ago ? raised.times : 1;
    const date = new Date(day * DAY_MS);
    if (date.getUTCDay() === 1) changeMood(unit);
    if (!workDays.includes(date.getUTCDay())) return 0;
    return Math.min(
      23,
      Math.max(0, perDay * times * share * Math.exp(unit.mood) * (byMonth?.[date.getUTCMonth()] ?? 1)),
    );
  }

  private readMeter(unit: LivingCompressor, day: DayNumber): void {
    const takenAt = this.at(day, WORKING_HOUR);
    const reading: RecordReading = {
      id: idOf('reading', unit.story.plate.tag, day),
      takenAt,
      hours: Math.round(unit.meter * 10) / 10,
      counts: 'total',
      source: 'typed',
    };
    this.write.readings.record(unit.id, reading, this.technicianOf(unit));
    this.summary.readings += 1;
    if (unit.story.use.loadedShare === undefined) return;
    const loaded = {
      ...reading,
      id: idOf('loaded', unit.story.plate.tag, day),
      hours: Math.floor(unit.loaded),
      counts: 'loaded' as const,
    };
    this.write.readings.record(unit.id, loaded, this.technicianOf(unit));
    this.summary.readings += 1;
  }

  /** One machine has a controller that can be asked: the demonstration starts one that stands in for it. */
  readItself(gateway: GatewayService, dataDir: string): void {
    const unit = this.living.find(({ story }) => story.plate.tag === SELF_READING.tag)!;
    gateway.save(
      unit.id,
      {
        id: idOf('device', SELF_READING.tag),
        name: 'Controller',
        host: '127.0.0.1',
        port: SELF_READING.port,
        unitNumber: 1,
        everySeconds: 10,
        registers: EXAMPLE_REGISTERS,
        isOn: true,
      },
      this.lead,
    );
    // A little after it was last read: it has run meanwhile.
    const hours = { total: unit.meter + 0.2, loaded: Math.floor(unit.loaded) + 1 };
    const { siteId } = unit;
    const order = { plate: { ...unit.story.plate, siteId }, port: SELF_READING.port, hours };
    writeFileSync(join(dataDir, STAND_IN_ORDER), JSON.stringify(order));
  }

  private replaceMeter(unit: LivingCompressor, day: DayNumber): void {
    const changedAt = this.at(day, WORKING_HOUR - 1);
    const change = {
      id: idOf('meter', unit.story.plate.tag, day),
      changedAt,
      oldFinalHours: Math.round(unit.meter * 10) / 10,
      newStartHours: 0,
      reason: 'replaced' as const,
      note: 'Display had gone dark.',
    };
    this.write.readings.recordMeterChange(unit.id, change, this.technicianOf(unit));
    unit.meter = 0;
  }

  /** Does what the standing of that day asks for, as a technician would; what a story neglects stays undone. */
  private serve(unit: LivingCompressor, day: DayNumber, visit: MeasuredVisit): void {
    const doneAt = this.at(day, WORKING_HOUR + 1);
    const { neglected } = unit.story;
    const ago = this.today - day;
    const tasks = this.write.standings
      .of(unit.id)
      .tasks.filter((task) => task.state === 'due' || task.state === 'overdue' || task.state === 'nearing')
      .map((task) => task.code)
      .filter(
        (code) =>
          !code.includes(':') && !(neglected && ago <= neglected.since && neglected.tasks.includes(code)),
      );
    if (tasks.length === 0) return;
    this.measure(unit, day, WORKING_HOUR + 1, unit.instruments.tests(tasks));
    const service: RecordService = { id: idOf('service', unit.story.plate.tag, day), doneAt, tasks };
    this.write.services.record(unit.id, service, this.technicianOf(unit));
    this.summary.services += 1;
    this.measure(unit, day, WORKING_HOUR + 2, unit.instruments.after(visit, tasks));
  }

  /** What was opened or fitted at an earlier visit is looked at, and found as it should be. */
  private lookAgain(unit: LivingCompressor, day: DayNumber): void {
    const lookedAt = this.at(day, WORKING_HOUR + 0.25);
    for (const { kind, state } of this.write.followUps.of(unit.id)) {
      if (state === 'coming') continue;
      const id = idOf('follow-up', unit.story.plate.tag, day, kind);
      const look = { id, lookedAt, of: kind, found: 'sound' as const };
      this.write.followUps.record(unit.id, look, this.technicianOf(unit));
    }
  }

  /** What a story neglects is done once more before it is. */
  private doForTheLastTime(unit: LivingCompressor, day: DayNumber): void {
    const doneAt = this.at(day, WORKING_HOUR + 1);
    const id = idOf('last service', unit.story.plate.tag, day);
    const tasks = [...unit.story.neglected!.tasks];
    this.measure(unit, day, WORKING_HOUR + 1, unit.instruments.tests(tasks));
    this.write.services.record(unit.id, { id, doneAt, tasks }, this.technicianOf(unit));
    this.summary.services += 1;
  }

  private measure(unit: LivingCompressor, day: DayNumber, hour: number, measured: readonly Measured[]): void {
    const { tag } = unit.story.plate;
    const takenAt = this.at(day, hour);
    for (const one of measured) {
      const measurement = { ...one, id: idOf(one.check, tag, day, hour), takenAt };
      this.write.measurements.record(unit.id, measurement, this.technicianOf(unit));
      this.summary.measurements += 1;
    }
  }

  private technicianOf({ site }: LivingCompressor): string {
    return this.technicians[sites.indexOf(site) % this.technicians.length]!;
  }

  /** Moves the clock to an hour of a day, and writes that moment. */
  private at(day: DayNumber, hour: number): string {
    const moment = Math.round(startOfLocalDay(day, TIME_ZONE) + hour * HOUR_MS);
    this.setClock(moment);
    return formatInstant(moment);
  }
}

function seasonOf(day: DayNumber): number {
  return day % 365.25;
}

const USUAL_WANDER = 0.12;

/** Weeks are alike and yet not: orders come and go, and come back to the habit. */
function changeMood(unit: LivingCompressor): void {
  const { moods, story } = unit;
  const push = moods() + moods() + moods() - 1.5;
  unit.mood = 0.85 * unit.mood + (story.use.wander ?? USUAL_WANDER) * push;
}

function firstDayAgo(story: CompressorStory): number {
  return story.known ?? story.commissioned;
}

/** The same story gets the same ids, so that it can be looked up in tests. */
function idOf(...parts: (string | number)[]): string {
  const hex = createHash('sha256')
    .update([SEED, ...parts].join('|'))
    .digest('hex');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-8${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}
