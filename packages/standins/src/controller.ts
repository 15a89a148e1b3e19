import { once, type EventEmitter } from 'node:events';
import { createServer, type AddressInfo } from 'node:net';
import {
  registerKey,
  registersOf,
  type DeviceQuantityCode,
  type RegisterMap,
  type RegisterTable,
} from '@entretien/core/gateway';
import type { DataPlate } from '@entretien/core/machine';
import { Simulation, type Seen } from '@entretien/core/simulator';
import { ServerTCP } from 'modbus-serial';

export interface ControllerOptions {
  readonly plate: DataPlate;
  /** What its registers hold, and where. */
  readonly map: RegisterMap;
  readonly port: number;
  /** Hours that its counters begin with. */
  readonly hours: { readonly total: number; readonly loaded: number };
  /** Faults of its machine, by size. */
  readonly faults?: Readonly<Record<string, number>>;
  /** Seconds of the machine in one of the clock; 0 halts it. */
  readonly pace?: number;
}

/** How often the machine moves on, ms. */
const TICK_MS = 500;
const ALARMS: Readonly<Record<string, number>> = { overload: 1, temperature: 2 };

/** What is refused by a device, by the code of the protocol: 1 no such function, 2 no such register. */
class Refused extends Error {
  constructor(readonly modbusErrorCode: 1 | 2) {
    super();
  }
}

/** It can only be read. */
function refuseWriting(): never {
  throw new Refused(1);
}

/** The controller of a machine that is simulated: it speaks Modbus TCP on this machine alone, and can only be read. */
export class Controller {
  readonly simulation: Simulation;
  private readonly server: ServerTCP;
  private readonly timer: NodeJS.Timeout | null;

  private constructor(private readonly options: ControllerOptions) {
    const { plate, port, faults = {}, pace = 1 } = options;
    this.simulation = new Simulation(plate);
    for (const [code, size] of Object.entries(faults)) this.simulation.fault(code, size);
    this.simulation.press('start');
    const answer = (table: RegisterTable) => (from: number, count: number) => this.read(table, from, count);
    this.server = new ServerTCP(
      {
        getMultipleHoldingRegisters: answer('holding'),
        getMultipleInputRegisters: answer('input'),
        getHoldingRegister: (at: number) => this.read('holding', at, 1)[0]!,
        getInputRegister: (at: number) => this.read('input', at, 1)[0]!,
        setRegister: () => refuseWriting(),
        setRegisterArray: () => refuseWriting(),
      },
      { host: '127.0.0.1', port, unitID: 1 },
    );
    // Whoever sends nonsense is cut off by the library; here it is nobody’s trouble.
    this.server.on('socketError', () => undefined);
    this.timer =
      pace > 0 ? setInterval(() => this.simulation.advance((pace * TICK_MS) / 1000), TICK_MS) : null;
  }

  /** Starts to answer; rejects where the port is taken. Port 0 is any that is free. */
  static async start(options: ControllerOptions): Promise<Controller> {
    const controller = new Controller({
      ...options,
      port: options.port === 0 ? await freePort() : options.port,
    });
    await new Promise<void>((resolve, reject) => {
      const server = controller.server as EventEmitter;
      server.once('initialized', resolve);
      server.once('serverError', (error: Error) => {
        controller.halt();
        reject(error);
      });
    });
    return controller;
  }

  get port(): number {
    return this.options.port;
  }

  private halt(): void {
    if (this.timer) clearInterval(this.timer);
  }

  async stop(): Promise<void> {
    this.halt();
    await new Promise<void>((done) => this.server.close(() => done()));
  }

  /** What its panel shows. */
  figures(): Readonly<Partial<Record<DeviceQuantityCode, number>>> {
    const seen = this.simulation.see();
    const { hours } = this.options;
    const temp = (...codes: readonly string[]) => seen.temps.find(({ code }) => codes.includes(code))?.tempC;
    const last = seen.temps.filter(({ code }) => code.startsWith('cover')).at(-1)?.tempC;
    const outletC = temp('outlet') ?? last;
    return {
      'hours-total': hours.total + seen.hours.total,
      'hours-loaded': hours.loaded + seen.hours.loaded,
      status: statusOf(seen),
      alarm: seen.trip === null ? 0 : (ALARMS[seen.trip] ?? 9),
      'pressure-bar': seen.gauges.at(-1)?.bar ?? 0,
      ...(outletC === undefined ? {} : { 'outlet-c': outletC }),
      'ambient-c': this.simulation.machine.plant.roomK - ZERO_C,
    };
  }

  private read(table: RegisterTable, from: number, count: number): number[] {
    const registers = registersOf(this.options.map, this.figures());
    return Array.from({ length: count }, (_one, at) => {
      const held = registers.get(registerKey(table, from + at));
      // What lies between two figures is read along, and holds nothing.
      if (held === undefined && at === 0) throw new Refused(2);
      return held ?? 0;
    });
  }
}

const ZERO_C = 273.15;

function statusOf({ drive, isLoaded, trip }: Seen): number {
  if (trip !== null) return 3;
  if (drive !== 'runs') return 0;
  return isLoaded ? 2 : 1;
}

/** The library takes port 0 for its usual one: a free one is looked for before. */
async function freePort(): Promise<number> {
  const server = createServer().listen(0, '127.0.0.1');
  await once(server, 'listening');
  const { port } = server.address() as AddressInfo;
  server.close();
  await once(server, 'close');
  return port;
}
