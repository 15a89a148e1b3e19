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
  type DeviceDuties,
  type DeviceFigures,
  type DeviceMemory,
  type DeviceQuantityCode,
  type RegisterMap,
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

/** A device that is being asked, as it is set. */
interface Watched {
  readonly device: DeviceEntity;
  /** Where its figures stand; read with the first question. */
  map: RegisterMap | null;
  memory: DeviceMemory;
  failures: number;
  problem: string | null;
  /** What it showed last; null where it has not answered since it is asked. */
  values: DeviceFigures['values'] | null;
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
    const watched: Watched = {
      device,
      map: null,
      memory: { ...NOTHING_ANSWERED, recorded: this.recordedOf(device.compressorId) },
      failures: 0,
      problem: null,
      values: null,
      answeredAt: device.answeredAt,
      notedAt: device.answeredAt,
      timer: null,
      isAsking: false,
    };
    this.watched.set(device.id, watched);
    this.askIn(watched, 0);
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
  private askIn(watched: Watched, ms: number): void {
    if (!this.isFollowed(watched)) return;
    watched.timer = setTimeout(() => void this.askAndGoOn(watched), ms);
    watched.timer.unref();
  }

  /** Whether a device is still asked as it was set then: not changed, not removed, and the server goes on. */
  private isFollowed(watched: Watched): boolean {
    return !this.ends.signal.aborted && this.watched.get(watched.device.id) === watched;
  }

  private async askAndGoOn(watched: Watched): Promise<void> {
    try {
      await this.ask(watched.device.id);
    } catch (problem) {
      // A full disk, say: it is asked again.
      this.logger.error(problem, 'A device could not be seen to.');
    }
    this.askIn(watched, watched.device.everySeconds * 1000);
  }

  /** Asks a device once. */
  async ask(id: string): Promise<void> {
    const watched = this.watched.get(id);
    if (!watched || watched.isAsking) return;
    const { device } = watched;
    watched.isAsking = true;
    try {
      const map = (watched.map ??= this.devices.mapOf(device.registers));
      const word = await readDevice(device, readsOf(map), this.limits, this.ends.signal);
      // Changed or removed while it answered: what it said is of what it was.
      if (this.isFollowed(watched)) this.took(watched, figuresOf(map, word));
    } catch (problem) {
      if (!(problem instanceof DeviceProblem)) throw problem;
      watched.failures += 1;
      watched.problem = problem.message;
    } finally {
      watched.isAsking = false;
    }
  }

  private took(watched: Watched, figures: DeviceFigures): void {
    const { device } = watched;
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
    for (const reading of readings) this.record(watched, reading, now);
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
    watched: Watched,
    { counts, what, hours }: DeviceDuties['readings'][number],
    now: Instant,
  ): void {
    const isRefused = !this.orRefuse(watched.device, what, () =>
      this.readings.record(
        watched.device.compressorId,
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
    return watched.values === null ? 'waiting' : 'answers';
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
