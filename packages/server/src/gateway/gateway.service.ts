import {
  Inject,
  Injectable,
  type BeforeApplicationShutdown,
  type OnApplicationBootstrap,
} from '@nestjs/common';
import {
  DEFAULT_PERSON_ID,
  type DeviceState,
  type DevicesView,
  type DeviceView,
  type SaveDevice,
} from '@entretien/contracts';
import { formatInstant, type Instant } from '@entretien/core/basics';
import {
  afterRecording,
  deviceQuantities,
  deviceStates,
  dutiesOf,
  figuresOf,
  NOTHING_ANSWERED,
  readsOf,
  type DeviceFigures,
  type DeviceMemory,
  type DeviceQuantityCode,
} from '@entretien/core/gateway';
import type { CounterKind } from '@entretien/core/hours';
import type { Logger } from 'pino';
import { v7 as newId } from 'uuid';
import { ProblemError } from '../common/problem.js';
import { CLOCK, LOGGER, type Clock } from '../common/tokens.js';
import { CompressorRegister } from '../compressors/compressor-register.js';
import { MeasurementsService } from '../measurements/measurements.service.js';
import { Database } from '../persistence/database.js';
import type { DeviceEntity } from '../persistence/entities/device.entity.js';
import { stands } from '../persistence/hour-facts-sql.js';
import { ReadingsService } from '../readings/readings.service.js';
import { SitesService } from '../sites/sites.service.js';
import { DevicesService } from './devices.service.js';
import { DeviceProblem, readDevice, USUAL_LIMITS } from './read-device.js';

/** Unanswered so often in a row, it is silent: one lost answer is nothing. */
const SILENT_AFTER = 3;
/** When it last answered is written down no more often than this. */
const NOTED_EVERY_MS = 60_000;
const COUNTS = { total: 'hours-total', loaded: 'hours-loaded' } as const;

/** A device that is being asked. */
interface Watched {
  memory: DeviceMemory;
  failures: number;
  problem: string | null;
  values: DeviceFigures['values'];
  answeredAt: Instant | null;
  notedAt: Instant | null;
  timer: NodeJS.Timeout | null;
  isAsking: boolean;
}

/**
 * Asks the devices for what they show, each at its own pace, and puts it on record by the same rules as what is typed.
 * What they tell that is no fact lies in a tray, with its reason.
 */
@Injectable()
export class GatewayService implements OnApplicationBootstrap, BeforeApplicationShutdown {
  private readonly watched = new Map<string, Watched>();
  /** The server ends: whoever is being asked is hung up on. */
  private readonly ends = new AbortController();
  /** Tests are not made to wait. */
  limits = USUAL_LIMITS;

  constructor(
    private readonly devices: DevicesService,
    private readonly database: Database,
    private readonly register: CompressorRegister,
    private readonly sites: SitesService,
    private readonly readings: ReadingsService,
    private readonly measurements: MeasurementsService,
    @Inject(CLOCK) private readonly clock: Clock,
    @Inject(LOGGER) private readonly logger: Logger,
  ) {}

  onApplicationBootstrap(): void {
    if (this.devices.allowed === null) return;
    for (const device of this.devices.all()) this.follow(device);
  }

  beforeApplicationShutdown(): void {
    this.ends.abort();
    for (const { timer } of this.watched.values()) if (timer) clearTimeout(timer);
  }

  save(compressorId: string, sent: SaveDevice, by: string): DeviceView {
    const device = this.devices.save(compressorId, sent, by);
    this.follow(device);
    return this.toView(device);
  }

  remove(id: string): void {
    const { id: known } = this.devices.remove(id);
    this.forget(known);
  }

  seen(refusalId: string): DeviceView {
    return this.toView(this.devices.seen(refusalId));
  }

  view(compressorId?: string): DevicesView {
    const rows = compressorId === undefined ? this.devices.all() : this.devices.of(compressorId);
    return { isOn: this.devices.allowed !== null, items: rows.map((row) => this.toView(row)) };
  }

  private forget(id: string): void {
    const watched = this.watched.get(id);
    if (watched?.timer) clearTimeout(watched.timer);
    this.watched.delete(id);
  }

  /** Begins to ask a device, or begins again as it is set now. */
  private follow(device: DeviceEntity): void {
    this.forget(device.id);
    if (!device.isOn || !this.devices.mayAsk(device)) return;
    this.watched.set(device.id, {
      memory: { ...NOTHING_ANSWERED, recorded: this.recordedOf(device.compressorId) },
      failures: 0,
      problem: null,
      values: {},
      answeredAt: device.answeredAt,
      notedAt: device.answeredAt,
      timer: null,
      isAsking: false,
    });
    this.askIn(device.id, 0);
  }

  /** What was last read by a device on a unit: a start of the server is no reason to read anew. */
  private recordedOf(compressorId: string): DeviceMemory['recorded'] {
    const last = (counts: CounterKind) =>
      this.database.all<{ hours: number; at: Instant }>(
        `SELECT "f"."hours", "f"."taken_at" AS "at" FROM "reading" "f" WHERE "f"."compressor_id" = ? AND "f"."counts" = ? AND "f"."source" = 'gateway' AND ${stands('f')} ORDER BY "f"."taken_at" DESC LIMIT 1`,
        compressorId,
        counts,
      )[0];
    const [total, loaded] = [last('total'), last('loaded')];
    return { ...(total ? { total } : {}), ...(loaded ? { loaded } : {}) };
  }

  /** By a timer of its own after each answer: a clock that is set otherwise stops nothing. */
  private askIn(id: string, ms: number): void {
    const watched = this.watched.get(id);
    if (!watched || this.ends.signal.aborted) return;
    watched.timer = setTimeout(() => void this.askAndGoOn(id), ms);
    watched.timer.unref();
  }

  private async askAndGoOn(id: string): Promise<void> {
    try {
      await this.ask(id);
    } catch (problem) {
      // A full disk, say: it is asked again.
      this.logger.error(problem, 'A device could not be seen to.');
    }
    const device = this.ends.signal.aborted ? undefined : this.devices.find(id);
    if (device) this.askIn(id, device.everySeconds * 1000);
  }

  /** Asks a device once. */
  async ask(id: string): Promise<void> {
    const device = this.devices.find(id);
    const watched = this.watched.get(id);
    if (!device || !watched || watched.isAsking) return;
    watched.isAsking = true;
    try {
      const map = this.devices.mapOf(device.registers);
      const word = await readDevice(device, readsOf(map), this.limits, this.ends.signal);
      // Changed or removed while it answered: what it said is of what it was.
      if (this.ends.signal.aborted || this.watched.get(id) !== watched) return;
      this.took(device, watched, figuresOf(map, word));
    } catch (problem) {
      if (!(problem instanceof DeviceProblem)) throw problem;
      watched.failures += 1;
      watched.problem = problem.message;
    } finally {
      watched.isAsking = false;
    }
  }

  private took(device: DeviceEntity, watched: Watched, figures: DeviceFigures): void {
    const now = this.clock();
    watched.failures = 0;
    watched.problem = null;
    watched.values = figures.values;
    watched.answeredAt = now;
    if (watched.notedAt === null || Math.abs(now - watched.notedAt) >= NOTED_EVERY_MS) {
      this.devices.answered(device.id, now);
      watched.notedAt = now;
    }
    const { readings, temperatures, doubts, memory } = dutiesOf(watched.memory, figures, now);
    watched.memory = memory;
    for (const doubt of doubts) this.devices.refuse(device.id, doubt);
    for (const { counts, hours } of readings) this.record(device, watched, counts, hours, now);
    if (temperatures === null) return;
    watched.memory = { ...watched.memory, measuredAt: now };
    this.orRefuse(device, 'outlet-c', () =>
      this.measurements.record(
        device.compressorId,
        {
          id: newId(),
          takenAt: formatInstant(now),
          check: 'discharge-temperature',
          values: temperatures,
          note: `Read by ${device.name}.`,
        },
        DEFAULT_PERSON_ID,
      ),
    );
  }

  private record(
    device: DeviceEntity,
    watched: Watched,
    counts: CounterKind,
    hours: number,
    now: Instant,
  ): void {
    const isRefused = !this.orRefuse(device, COUNTS[counts], () =>
      this.readings.record(
        device.compressorId,
        { id: newId(), takenAt: formatInstant(now), hours, counts, source: 'gateway' },
        DEFAULT_PERSON_ID,
      ),
    );
    watched.memory = afterRecording(watched.memory, counts, hours, { at: now, isRefused });
  }

  /** Puts something on record; what the rules refuse lies in the tray. */
  private orRefuse(device: DeviceEntity, what: DeviceQuantityCode, record: () => unknown): boolean {
    try {
      record();
      return true;
    } catch (problem) {
      if (!(problem instanceof ProblemError)) throw problem;
      const { code, detail, title } = problem.toDetails();
      this.devices.refuse(device.id, { what, code, sentence: detail ?? title });
      return false;
    }
  }

  private stateOf(device: DeviceEntity, watched: Watched | undefined): DeviceState {
    if (this.devices.allowed === null || !device.isOn) return 'off';
    if (!this.devices.mayAsk(device)) return 'not-allowed';
    if (watched === undefined || watched.failures >= SILENT_AFTER) return 'silent';
    return watched.answeredAt === null || Object.keys(watched.values).length === 0 ? 'waiting' : 'answers';
  }

  private toView(device: DeviceEntity): DeviceView {
    const watched = this.watched.get(device.id);
    const state = this.stateOf(device, watched);
    const plate = this.register.plateOf(this.register.require(device.compressorId), this.clock());
    const answeredAt = watched?.answeredAt ?? device.answeredAt;
    const { id, compressorId, name, host, port, unitNumber, everySeconds, registers } = device;
    return {
      id,
      compressorId,
      tag: plate.tag,
      siteName: this.sites.find(plate.siteId)?.name ?? '',
      timeZone: this.register.timeZoneOf(plate),
      name,
      host,
      port,
      unitNumber,
      everySeconds,
      registers,
      isOn: device.isOn === 1,
      state,
      answeredAt: answeredAt === null ? null : formatInstant(answeredAt),
      problem:
        state === 'not-allowed'
          ? 'Its address is not among those that this installation may ask (ENTRETIEN_DEVICES).'
          : (watched?.problem ?? null),
      figures: Object.entries(watched?.values ?? {}).map(([what, figure]) => ({
        name: deviceQuantities[what as DeviceQuantityCode].name,
        text: figureText(what as DeviceQuantityCode, figure),
      })),
      refused: this.devices.refusedOf(device.id),
    };
  }
}

function figureText(what: DeviceQuantityCode, figure: number): string {
  if (what === 'status') return deviceStates[Math.round(figure)] ?? String(figure);
  if (what === 'alarm') return figure === 0 ? 'none' : `number ${figure}`;
  const { unit, decimals } = deviceQuantities[what];
  return `${figure.toFixed(decimals)} ${unit}`;
}
