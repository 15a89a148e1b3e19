import { randomUUID } from 'node:crypto';
import fc from 'fast-check';
import { checkLibrary, judgeCheck, type CheckValues, type FieldDefinition } from '@entretien/core/checks';
import type { DataPlate } from '@entretien/core/machine';
import { formatQuantity, parseQuantity, unitsOf } from '@entretien/core/quantities';
import { DAY, daysAgo, expectStatus, NOW, TestServer, type Answer } from '../testing/test-server.js';

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
});
afterAll(() => server.stop());

interface Sent {
  readonly check: string;
  readonly values: object;
  readonly takenAt?: string;
  readonly id?: string;
}

function measure(unit: string, sent: Sent & object): Promise<Answer> {
  return server.post(`/api/compressors/${unit}/measurements`, {
    id: randomUUID(),
    takenAt: daysAgo(1),
    ...sent,
  });
}

async function measurements(unit: string, query = ''): Promise<Answer['body']> {
  return (await server.read(`/api/compressors/${unit}/measurements${query}`)).body.items;
}

const screw = { family: 'screw', tag: 'SC-1', fadLpm: 3000 };
const drop = (dropBar: number, more: object = {}) => ({
  check: 'separator-drop',
  values: { dropBar },
  ...more,
});

describe('a measurement', () => {
  test('is recorded with the judgement made of it, and listed latest first', async () => {
    const unit = await server.addCompressor(screw);
    const first = await measure(unit, drop(0.5, { takenAt: daysAgo(20) }));
    expectStatus(201, first);
    expect(first.body).toMatchObject({
      check: 'separator-drop',
      values: { dropBar: 0.5 },
      baseline: false,
      judgement: { verdict: 'good', limit: { value: 0.7, origin: 'practice' }, figure: { value: 0.5 } },
    });
    expectStatus(201, await measure(unit, drop(1.1, { takenAt: daysAgo(2), note: 'warm' })));
    const listed = await measurements(unit);
    expect(listed.map((one: { judgement: { verdict: string } }) => one.judgement.verdict)).toEqual([
      'act',
      'good',
    ]);
    expect(listed[0].judgement.suggests[0]).toMatchObject({ task: 'separator-replace' });
    expect((await server.read(`/api/compressors/${unit}`)).body.revision).toBe(3);
  });

  test('sent again it answers as the first time; with other content it is a conflict', async () => {
    const unit = await server.addCompressor(screw);
    const sent = drop(0.5, { id: randomUUID() });
    const first = await measure(unit, sent);
    expect(await measure(unit, sent)).toMatchObject({ status: 201, body: first.body });
    expect((await measure(unit, { ...sent, values: { dropBar: 0.6 } })).status).toBe(409);
    expect(await measurements(unit)).toHaveLength(1);
  });

  test('is found by check and by time, page by page', async () => {
    const unit = await server.addCompressor(screw);
    for (const ago of [9, 7, 5, 3]) await measure(unit, drop(0.1 * ago, { takenAt: daysAgo(ago) }));
    await measure(unit, { check: 'oil-look', values: { look: 'dark' } });
    expect(await measurements(unit, '?check=separator-drop')).toHaveLength(4);
    expect(
      await measurements(unit, `?check=separator-drop&from=${daysAgo(7)}&to=${daysAgo(5)}`),
    ).toHaveLength(2);
    const page = await server.read(`/api/compressors/${unit}/measurements?check=separator-drop&limit=3`);
    expect(page.body.items).toHaveLength(3);
    const next = await server.read(
      `/api/compressors/${unit}/measurements?check=separator-drop&limit=3&cursor=${page.body.nextCursor}`,
    );
    expect(next.body.items.map((one: { values: object }) => one.values)).toEqual([{ dropBar: 0.9 }]);
  });

  test('its hours count as a reading, once, and place it on the run hours', async () => {
    const unit = await server.addCompressor(screw);
    await server.readHours(unit, daysAgo(30), 1000);
    const sent = drop(0.5, { id: randomUUID(), takenAt: daysAgo(10), hours: 1100 });
    const { body } = await measure(unit, sent);
    await measure(unit, sent);
    expect([body.hours, body.runHours]).toEqual([1100, 1100]);
    const readings = (await server.read(`/api/compressors/${unit}/readings`)).body.items;
    expect(readings.map((one: { hours: number }) => one.hours)).toEqual([1100, 1000]);
    expect((await server.standing(unit)).revision).toBe(4);
  });

  test('impossible hours refuse it whole', async () => {
    const unit = await server.addCompressor(screw);
    await server.readHours(unit, daysAgo(30), 1000);
    const answer = await measure(unit, drop(0.5, { takenAt: daysAgo(10), hours: 900 }));
    expect(answer).toMatchObject({
      status: 422,
      body: { code: 'goes-backwards', errors: [{ field: 'hours' }] },
    });
    expect(await measurements(unit)).toEqual([]);
  });

  test('the judgement on record stays what it was when the plate changes', async () => {
    const unit = await server.addCompressor({ fadLpm: 400, receiverL: 270 });
    const pump = { check: 'pump-up', values: { fromBar: 6, toBar: 8, seconds: 95 } };
    const first = await measure(unit, { ...pump, takenAt: daysAgo(10) });
    expect(first.body.judgement).toMatchObject({ verdict: 'watch', limit: { origin: 'plate' } });
    const change = { id: randomUUID(), changedAt: daysAgo(5), fadLpm: 340 };
    expectStatus(201, await server.post(`/api/compressors/${unit}/plate`, change));
    const second = await measure(unit, { ...pump, takenAt: daysAgo(1) });
    expect(second.body.judgement.verdict).toBe('good');
    const [, stored] = await measurements(unit);
    expect(stored.judgement).toEqual(first.body.judgement);
    // Measured before the change it is judged by the plate of then.
    const late = await measure(unit, { ...pump, takenAt: daysAgo(8) });
    expect(late.body.judgement.verdict).toBe('watch');
  });

  test('is compared with the baseline that held then; a withdrawn one no longer holds', async () => {
    const unit = await server.addCompressor({ receiverL: 270 });
    const pump = (seconds: number, more: object = {}) => ({
      check: 'pump-up',
      values: { fromBar: 6, toBar: 8, seconds },
      ...more,
    });
    const baseline = await measure(unit, pump(60, { takenAt: daysAgo(30), baseline: true }));
    expect(baseline.body.judgement).toMatchObject({ verdict: 'good', limit: null });
    const slow = await measure(unit, pump(80, { takenAt: daysAgo(10) }));
    expect(slow.body.judgement).toMatchObject({ verdict: 'act', limit: { origin: 'baseline' } });
    const judged = await server.post('/api/judgements', { compressorId: unit, ...pump(80) });
    expect(judged.body).toMatchObject({ verdict: 'act' });
    const withdrawal = { id: randomUUID(), reason: 'wrong receiver' };
    expectStatus(
      201,
      await server.post(`/api/compressors/${unit}/measurements/${baseline.body.id}/withdrawal`, withdrawal),
    );
    expect((await measure(unit, pump(80))).body.judgement.limit).toBeNull();
    const listed = await measurements(unit);
    expect(listed.find((one: { id: string }) => one.id === baseline.body.id).voided).toMatchObject({
      how: 'withdrawn',
      reason: 'wrong receiver',
    });
  });

  test('is put right by another, once', async () => {
    const unit = await server.addCompressor(screw);
    const wrong = await measure(unit, drop(5));
    const right = await measure(unit, drop(0.5, { corrects: wrong.body.id }));
    expect(right.body).toMatchObject({ corrects: wrong.body.id, judgement: { verdict: 'good' } });
    expect((await measure(unit, drop(0.6, { corrects: wrong.body.id }))).status).toBe(409);
    const listed = await measurements(unit);
    expect(listed.map((one: { voided?: object }) => one.voided !== undefined).sort()).toEqual([false, true]);
  });

  test('survives a restart of the server', async () => {
    const unit = await server.addCompressor(screw);
    await measure(unit, drop(0.8));
    const before = await measurements(unit);
    await server.restart();
    expect(await measurements(unit)).toEqual(before);
  });

  test('thinner air at the height of its site is reckoned with', async () => {
    const pump = {
      check: 'pump-up',
      values: { volumeL: 270, fromBar: 6, toBar: 8, seconds: 80, fadLpm: 450 },
    };
    const flowAt = async (altitudeM: number) => {
      const unit = await server.addCompressor({ siteId: await server.addSite({ altitudeM }) });
      return (await measure(unit, pump)).body.judgement.figure.value as number;
    };
    // ISO 2533: 79.495 kPa at 2,000 m.
    expect((await flowAt(2000)) / (await flowAt(0))).toBeCloseTo(101.325 / 79.495, 2);
  });
});

describe('bad input', () => {
  let unit: string;
  beforeAll(async () => {
    unit = await server.addCompressor(screw);
  });

  test.each<[string, object, number, string]>([
    ['a check that this unit does not have', { check: 'cartridge-weight', values: {} }, 422, 'check'],
    ['no check at all', { check: 'phase-of-moon', values: {} }, 422, 'check'],
    ['a check that is no code', { check: 'Separator drop', values: {} }, 400, 'check'],
    ['values of another check', { check: 'separator-drop', values: { look: 'dark' } }, 422, 'values.look'],
    ['a figure out of bounds', drop(900), 422, 'values.dropBar'],
    ['a figure below nothing', drop(-1), 422, 'values.dropBar'],
    ['a text for a figure', { check: 'separator-drop', values: { dropBar: 'much' } }, 422, 'values.dropBar'],
    ['nothing measured', { check: 'separator-drop', values: {} }, 422, 'values.dropBar'],
    ['values that are a list', { check: 'separator-drop', values: [1] }, 400, 'values'],
    ['values within values', { check: 'separator-drop', values: { dropBar: { a: 1 } } }, 400, 'values'],
    ['no values', { check: 'separator-drop' }, 400, 'values'],
    ['tomorrow', drop(0.5, { takenAt: new Date(NOW + 2 * DAY).toISOString() }), 422, 'takenAt'],
    ['a day that there is not', drop(0.5, { takenAt: '2026-02-30T10:00:00Z' }), 400, 'takenAt'],
    ['hours below nothing', drop(0.5, { hours: -1 }), 400, 'hours'],
    ['baseline perhaps', drop(0.5, { baseline: 'perhaps' }), 400, 'baseline'],
    ['a note without end', drop(0.5, { note: 'x'.repeat(2001) }), 400, 'note'],
  ])('%s is refused beside its field', async (_name, sent, status, field) => {
    const answer = await measure(unit, sent as Sent);
    expect([answer.status, answer.body.errors?.[0]?.field]).toEqual([status, field]);
    expect(answer.body.errors[0].message.length).toBeGreaterThan(10);
  });

  test('and leaves nothing behind', async () => {
    expect(await measurements(unit)).toEqual([]);
  });

  test('a thermometer in the wrong scale is asked about', async () => {
    const piston = await server.addCompressor({ stages: 2 });
    const values = { intakeTempC: 212, stage1Bar: 5, stage2Bar: 35 };
    const { body } = await measure(piston, { check: 'stage-pressures', values });
    expect(body.errors[0].message).toContain('Was it read in °F?');
  });
});

describe('the library of checks', () => {
  test('is told whole, as data', async () => {
    const { body } = await server.read('/api/check-library');
    expect(body.checks.map((check: { code: string }) => check.code)).toEqual(
      checkLibrary.map(({ code }) => code),
    );
    const pumpUp = body.checks.find((check: { code: string }) => check.code === 'pump-up');
    expect(pumpUp.fields.map((field: { code: string }) => field.code)).toContain('seconds');
    expect(pumpUp).not.toHaveProperty('judge');
  });

  test('or for a unit: what it can have, and where', async () => {
    const unit = await server.addCompressor({ family: 'high-pressure', stages: 4, tag: 'HP-4' });
    const { body } = await server.read(`/api/check-library?compressorId=${unit}`);
    const expected = body.checks.find((check: { code: string }) => check.code === 'stage-pressures');
    expect(expected.fields.filter((field: { code: string }) => /^stage\dBar$/.test(field.code))).toHaveLength(
      4,
    );
    expect(body.checks.find((check: { code: string }) => check.code === 'separator-drop')).toBeUndefined();
    expect(body.checks.find((check: { code: string }) => check.code === 'co')).toMatchObject({
      station: 'fill',
    });
    expect((await server.read(`/api/check-library?compressorId=${randomUUID()}`)).status).toBe(404);
  });
});

describe('what was lately found', () => {
  test('comes gravest first, and goes when it is found good again', async () => {
    const alone = await TestServer.start();
    try {
      const unit = await alone.addCompressor(screw);
      const post = (sent: object) =>
        alone.post(`/api/compressors/${unit}/measurements`, { id: randomUUID(), ...sent });
      await post(drop(0.8, { takenAt: daysAgo(5) }));
      await post({ check: 'oil-look', values: { look: 'metal' }, takenAt: daysAgo(20) });
      await post({ check: 'oil-level', values: { level: 'below', glass: 'clear' }, takenAt: daysAgo(90) });
      const findings = async () => (await alone.read('/api/findings')).body;
      const view = await findings();
      expect(view.items.map((one: { checkName: string; tag: string }) => [one.tag, one.checkName])).toEqual([
        ['SC-1', 'Look of the oil'],
        ['SC-1', 'Pressure drop of the separator'],
      ]);
      expect(view).toMatchObject({ total: 2 });
      expect((await alone.read('/api/findings?verdict=watch')).body.total).toBe(1);
      expect((await alone.read('/api/findings?verdict=good')).status).toBe(400);
      await post(drop(0.2, { takenAt: daysAgo(1) }));
      expect((await findings()).total).toBe(1);
    } finally {
      await alone.stop();
    }
  });
});

describe('page and server', () => {
  const machines: readonly Partial<DataPlate>[] = [
    {
      family: 'piston',
      stages: 2,
      fadLpm: 400,
      receiverL: 270,
      cutInBar: 6,
      cutOutBar: 8,
      workingPressureBar: 8,
    },
    { family: 'screw', fadLpm: 3000, hasDryer: true },
    { family: 'high-pressure', stages: 3, workingPressureBar: 300, airUse: 'breathing' },
    { family: 'piston-oil-free', motor: 'single-phase' },
    {
      family: 'piston',
      airUse: 'breathing',
      levelRead: 'rim',
      reliefBar: 10,
      maximumPressureBar: 11,
      cutOutBar: 8,
    },
    { family: 'high-pressure', stages: 4, workingPressureBar: 300, airUse: 'technical', stopsBy: 'relief' },
  ];

  /** What somebody might type in a field, and what the page understands of it. */
  const typed = (field: FieldDefinition): fc.Arbitrary<number | string | undefined> => {
    switch (field.as) {
      case 'choice':
        return fc.constantFrom(...field.options.map(({ code }) => code), 'perhaps', undefined);
      case 'date':
        return fc.constantFrom('2026-01-31', '2030-12-31', '2026-02-30', undefined);
      case 'text':
        return fc.constantFrom('dry climate', 'x'.repeat(field.maxLength + 1), undefined, undefined);
      case 'number':
        return fc.oneof(
          { weight: 9, arbitrary: fc.double({ min: field.min, max: field.max, noNaN: true }) },
          { weight: 1, arbitrary: fc.constantFrom(undefined, -1, 1e9) },
        );
      case 'quantity':
        return fc.oneof(
          {
            weight: 9,
            arbitrary: fc
              .tuple(
                fc.double({ min: field.min, max: Math.min(field.max, 400), noNaN: true }),
                fc.constantFrom(...unitsOf(field.quantity)),
              )
              .map(([stored, unit]) => {
                const { figure } = formatQuantity(stored, field.quantity, unit, { figures: 5 });
                const parsed = parseQuantity(
                  `${figure.replaceAll(',', '')} ${unit.spellings[0]}`,
                  field.quantity,
                );
                return parsed.ok ? parsed.value.value : undefined;
              }),
          },
          { weight: 1, arbitrary: fc.constantFrom(undefined, 0, -5) },
        );
    }
  };

  const inputs = fc
    .tuple(fc.constantFrom(...checkLibrary), fc.nat(machines.length - 1))
    .chain(([check, machine]) =>
      fc.tuple(...check.fields.map(typed)).map((figures) => ({
        check: check.code,
        machine,
        values: Object.fromEntries(
          check.fields.flatMap(({ code }, index) =>
            figures[index] === undefined ? [] : [[code, figures[index]]],
          ),
        ) as CheckValues,
      })),
    );

  test('judge 10,000 random inputs alike', async () => {
    const units = await Promise.all(machines.map((machine) => server.addCompressor(machine)));
    const plates = await Promise.all(
      units.map(async (unit) => (await server.read(`/api/compressors/${unit}`)).body as DataPlate),
    );
    const sample = fc.sample(inputs, 10_000);
    const verdicts = new Map<string, number>();
    for (let start = 0; start < sample.length; start += 50) {
      const some = sample.slice(start, start + 50);
      const answers = await Promise.all(
        some.map(({ check, values, machine }) =>
          server.post('/api/judgements', { compressorId: units[machine]!, check, values }),
        ),
      );
      answers.forEach(({ status, body }, index) => {
        const { check, values, machine } = some[index]!;
        const page = judgeCheck(check, JSON.parse(JSON.stringify(values)) as CheckValues, {
          plate: plates[machine]!,
          on: new Date(NOW).toISOString().slice(0, 10),
        });
        if (page.ok) expect({ check, status, body }).toEqual({ check, status: 200, body: page.value });
        else if (Object.values(values).some((one) => typeof one === 'string' && one.length > 200))
          expect({ check, status }).toEqual({ check, status: 400 });
        else
          expect({ check, status, code: body.code }).toEqual({ check, status: 422, code: page.problem.code });
        const key = page.ok ? page.value.verdict : 'refused';
        verdicts.set(key, (verdicts.get(key) ?? 0) + 1);
      });
    }
    // Not only refusals: every verdict is met often.
    for (const verdict of ['good', 'watch', 'act', 'stop'])
      expect(verdicts.get(verdict)).toBeGreaterThan(100);
  }, 120_000);
});

test.each([{}, { compressorId: null }])('of no unit (%j) a figure is judged by itself', async (unit) => {
  const answer = await server.post('/api/judgements', {
    ...unit,
    check: 'separator-drop',
    values: { dropBar: 0.5 },
  });
  expect(answer).toMatchObject({ status: 200, body: { verdict: 'good' } });
});
