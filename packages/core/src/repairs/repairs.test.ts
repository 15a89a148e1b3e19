import type { DataPlate } from '../machine/index.js';
import { checkByCode } from '../checks/index.js';
import { defaultPlan } from '../plan/index.js';
import {
  admitEntry,
  procedures,
  procedureStepName,
  proceduresFor,
  repairStanding,
  formatTorque,
  type RepairEntry,
} from './index.js';

const plate = (family: DataPlate['family'], more: Partial<DataPlate> = {}): DataPlate => ({
  siteId: 's',
  tag: 'X-1',
  family,
  commissionedOn: '2024-01-01',
  history: 'new',
  ...more,
});

let clock = 0;
const entry = (kind: RepairEntry['kind'], more: Partial<RepairEntry> = {}): RepairEntry => ({
  id: String(++clock),
  at: clock,
  by: 'mara',
  kind,
  text: 'words',
  ...more,
});
const proof = (verdict: RepairEntry['verdict']) => entry('proof', { check: 'pump-up', verdict });

describe('a repair', () => {
  const state = (...entries: RepairEntry[]) => repairStanding('fault', entries).state;

  test('is open until it is proved after the last work', () => {
    expect(state()).toBe('found');
    expect(state(entry('cause'))).toBe('found');
    expect(state(entry('cause'), entry('work'))).toBe('worked-on');
    expect(state(entry('work'), proof('act'))).toBe('proof-failed');
    expect(state(entry('work'), proof('good'))).toBe('proved');
    expect(state(entry('work'), proof('good'), entry('work'))).toBe('worked-on');
    expect(state(entry('work'), proof('stop'), entry('close'))).toBe('closed');
  });

  test('adds up the labour and says what it waits for', () => {
    const standing = repairStanding('fault', [
      entry('work', { minutes: 40 }),
      entry('work', { minutes: 25 }),
    ]);
    expect(standing).toMatchObject({
      minutes: 65,
      isOpen: true,
      waitsFor: 'Not proved yet: measure whether it helped.',
    });
  });

  test('settled, it takes notes and nothing else', () => {
    const settled = [entry('work'), proof('watch')];
    expect(admitEntry('fault', settled, { kind: 'work' })).toMatchObject({
      problem: { code: 'already-settled' },
    });
    expect(admitEntry('fault', settled, { kind: 'note' })).toMatchObject({ ok: true });
    expect(admitEntry('fault', [], { kind: 'proof' })).toMatchObject({ problem: { field: 'check' } });
    expect(admitEntry('improvement', [], { kind: 'work' })).toMatchObject({
      problem: { code: 'not-a-fault' },
    });
    expect(repairStanding('modification', []).isOpen).toBe(false);
  });
});

describe('guided overhauls', () => {
  const isSetting = (code: string) => code.endsWith('-setting');
  const codes = (one: DataPlate) =>
    proceduresFor(one)
      .map(({ code }) => code)
      .filter((code) => !isSetting(code));

  test('what is set by a screw comes last, a stop only where a switch stops it', () => {
    const set = (one: DataPlate) =>
      proceduresFor(one)
        .map(({ code }) => code)
        .filter(isSetting);
    expect(set(plate('screw'))).toEqual(['relief-setting', 'stop-setting']);
    expect(set(plate('high-pressure', { stopsBy: 'hand' }))).toEqual(['relief-setting']);
    expect(set(plate('high-pressure', { stopsBy: 'relief' }))).toEqual(['relief-setting']);
  });

  test('each machine has its own', () => {
    expect(codes(plate('piston-oil-free'))).toEqual(['ring-kit', 'valve-service', 'bearing']);
    expect(codes(plate('piston', { cooling: 'water', stages: 2 }))).toEqual([
      'valve-service',
      'water-cooled-overhaul',
      'bearing',
    ]);
    expect(codes(plate('screw'))).toEqual(['bearing', 'separator']);
    expect(codes(plate('high-pressure'))).toEqual(['valve-service', 'bearing', 'cartridge']);
  });

  test('the order of the two-stage overhaul is the trade’s', () => {
    const { steps } = procedures.find(({ code }) => code === 'water-cooled-overhaul')!;
    const order = [
      'water',
      'pipes',
      'head',
      'lp-valve',
      'crankcase',
      'crank-pin',
      'piston',
      'separator',
      'hp-valves',
      'coolers',
    ];
    expect(steps.map(({ code }) => code).filter((code) => order.includes(code))).toEqual(order);
  });

  test('each is proved by a check that there is, and names steps once', () => {
    for (const { provedBy, steps, code } of procedures) {
      expect([code, checkByCode(provedBy)?.code]).toEqual([code, provedBy]);
      expect(new Set(steps.map((one) => one.code)).size).toBe(steps.length);
    }
  });

  test('a ring goes in from the top, lip up, with a new intake element, and is turned by hand', () => {
    const { steps, renew } = procedures.find(({ code }) => code === 'ring-kit')!;
    expect(renew).toContain('intake element');
    expect(steps.map(({ name }) => name).join('; ')).toMatch(/lip up.*from the top.*by hand/);
  });

  test('the task it does is one of the machine’s plan, where it names one', () => {
    for (const family of ['piston-oil-free', 'screw', 'high-pressure'] as const) {
      const tasks = new Set(defaultPlan(plate(family), {}).tasks.map(({ code }) => code));
      const named = proceduresFor(plate(family)).flatMap(({ task }) => (task ? [task] : []));
      expect(named.some((task) => tasks.has(task))).toBe(true);
    }
  });

  test('a torque is the plate’s, or said to be unknown', () => {
    expect(formatTorque('head bolts', { torques: 'head 24 Nm' })).toMatch(/24 N·m/);
    expect(formatTorque('head bolts', {})).toMatch(/no figure known.*do not guess/);
  });
});

test('a step of an overhaul is told by its name; one of a later release as it is', () => {
  expect(procedureStepName('ring-kit/head-off')).toBe('Ring and sleeve kit, head off, reeds marked');
  expect(procedureStepName('ring-kit/of-later')).toBe('ring-kit/of-later');
  expect(procedureStepName('turned by hand')).toBe('turned by hand');
});
