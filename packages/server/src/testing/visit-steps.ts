import { randomUUID } from 'node:crypto';
import type { DataPlate } from '@entretien/core/machine';
import { honestCourse, restartSteps } from '@entretien/core/isolation';
import type { Answer, TestServer } from './test-server.js';

/** Goes through a visit as a page would, with the server's own clock. */
export class VisitAtWork {
  session = 'one';
  private readonly plate: DataPlate;

  constructor(
    private readonly server: TestServer,
    readonly id: string,
    readonly unit: string,
    plate: Partial<DataPlate>,
  ) {
    this.plate = plate as DataPlate;
  }

  /** Plans a visit of one unit. */
  static async plan(server: TestServer, unit: string, tasks: string[]): Promise<VisitAtWork> {
    const plate = (await server.read(`/api/compressors/${unit}`)).body as DataPlate;
    const id = randomUUID();
    const visit = {
      id,
      siteId: plate.siteId,
      plannedOn: '2026-11-24',
      units: [{ compressorId: unit, tasks }],
    };
    const answer = await server.post('/api/visits', visit);
    if (answer.status !== 201) throw new Error(JSON.stringify(answer.body));
    return new VisitAtWork(server, id, unit, plate);
  }

  step(kind: string, details: object, more: object = {}): Promise<Answer> {
    const step = {
      id: randomUUID(),
      compressorId: this.unit,
      kind,
      doneAt: new Date(this.server.now).toISOString(),
      session: this.session,
      details,
      ...more,
    };
    return this.server.post(`/api/visits/${this.id}/steps`, step);
  }

  /** Everything as expected, each hold as soon as it can be said; the server’s clock goes with it. */
  async isolate(opens: readonly string[] | null = null): Promise<void> {
    const start = this.server.now;
    for (const { seconds, body } of honestCourse(this.plate, opens)) {
      this.server.now = start + seconds * 1000;
      const { kind, ...details } = body;
      const answer = await this.step(kind, details);
      if (answer.status !== 201) throw new Error(JSON.stringify(answer.body));
    }
    this.server.now += 1;
  }

  restart(): Promise<Answer> {
    // One thing after the other: what happens in one millisecond has no order of its own.
    this.server.now += 1;
    return this.step('restart', { steps: restartSteps(this.plate).map(({ code }) => code) });
  }

  done(task: string, more: object = {}): Promise<Answer> {
    return this.step('task', { task, outcome: 'done' }, more);
  }

  async view(): Promise<Answer['body']> {
    return (await this.server.read(`/api/visits/${this.id}`)).body;
  }
}
