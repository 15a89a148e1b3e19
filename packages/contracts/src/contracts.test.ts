import { plainToInstance } from 'class-transformer';
import { validateSync } from 'class-validator';
import fc from 'fast-check';
import {
  AddPart,
  AddSite,
  ChangePlate,
  ChangeSite,
  CheckLibraryQuery,
  FindingsQuery,
  JudgeValues,
  LogbookQuery,
  MeasurementsQuery,
  ChangeVessel,
  PageQuery,
  PlanLibraryQuery,
  PlanVisit,
  DeferTask,
  RecordExamination,
  RecordMeasurement,
  RecordReading,
  RecordService,
  RecordVisitStep,
  RegisterCompressor,
  RegisterVessel,
  SavePlan,
  SetStartingPoints,
} from './index.js';

const ID = '01890a5d-ac96-774b-bcce-b302099a8057';

/** The fields of a body that its contract refuses. */
function refused(contract: new () => object, body: object): string[] {
  const errors = validateSync(plainToInstance(contract, body), {
    whitelist: true,
    forbidNonWhitelisted: true,
  });
  return errors.map((error) => error.property).sort();
}

const unit = { id: ID, siteId: ID, tag: 'CJ-1', family: 'piston', commissionedOn: '2026-01-01' };
const reading = { id: ID, takenAt: '2026-11-24T08:30:00Z', hours: 487.5, counts: 'total', source: 'typed' };
const service = { id: ID, doneAt: '2026-11-24T08:30:00Z', tasks: ['oil-change'] };

describe('a unit', () => {
  test('needs five fields and no more', () => {
    expect(refused(RegisterCompressor, unit)).toEqual([]);
    for (const field of Object.keys(unit)) {
      expect(refused(RegisterCompressor, { ...unit, [field]: undefined })).toEqual([field]);
    }
  });

  test.each([
    [{ stages: 2, drive: 'belt', motor: 'three-phase', cooling: 'water', hasDryer: false }, []],
    [{ workingPressureBar: 600, fadLpm: 0 }, []],
    [{ workingPressureBar: 600.1 }, ['workingPressureBar']],
    [{ workingPressureBar: '10' }, ['workingPressureBar']],
    [{ workingPressureBar: Number.NaN }, ['workingPressureBar']],
    [{ stages: 2.5 }, ['stages']],
    [{ stages: 0 }, ['stages']],
    [{ drive: 'chain', motor: 'steam' }, ['drive', 'motor']],
    [{ hasDryer: 'yes' }, ['hasDryer']],
    [{ maker: '' }, ['maker']],
    [{ maker: 'x'.repeat(81) }, ['maker']],
    [{ maker: null }, []],
    [{ colour: 'blue' }, ['colour']],
    [{ retiredOn: '2026-01-01' }, ['retiredOn']],
  ])('%j', (more, fields) => {
    expect(refused(RegisterCompressor, { ...unit, ...more })).toEqual(fields);
  });

  test('any version of UUID will do, in any case', () => {
    for (const id of [
      ID,
      ID.toUpperCase(),
      '9b2d6a3e-6f0e-4c51-9a0b-0d9f6f0a1b2c',
      'c232ab00-9414-11ec-b3c8-9f6bdeced846',
    ]) {
      expect(refused(RegisterCompressor, { ...unit, id })).toEqual([]);
    }
    for (const id of ['', 'CJ-1', `${ID}0`, ID.replaceAll('-', ''), ' '.repeat(36)]) {
      expect(refused(RegisterCompressor, { ...unit, id })).toEqual(['id']);
    }
  });
});

describe('a change of plate', () => {
  const change = { id: ID, changedAt: '2026-11-24T08:30:00Z' };

  test.each([
    [{ workingPressureBar: null }, []],
    [{ retiredOn: null }, []],
    [{ retiredOn: '2026-11-31' }, ['retiredOn']],
    [{ tag: null, siteId: null }, ['siteId', 'tag']],
    [{ family: 'screw' }, ['family']],
  ])('%j', (more, fields) => {
    expect(refused(ChangePlate, { ...change, ...more })).toEqual(fields);
  });
});

describe('facts', () => {
  test.each([
    [{}, []],
    [{ hours: 0 }, []],
    [{ hours: 1_000_001 }, ['hours']],
    [{ hours: Number.POSITIVE_INFINITY }, ['hours']],
    [{ hours: true }, ['hours']],
    [{ takenAt: 1_763_972_000_000 }, ['takenAt']],
    [{ takenAt: '2026-11-24' }, ['takenAt']],
    [{ takenAt: ['2026-11-24T08:30:00Z'] }, ['takenAt']],
    [{ note: null }, []],
    [{ note: 'x'.repeat(2000) }, []],
    [{ note: 'x'.repeat(2001) }, ['note']],
  ])('a reading with %j', (more, fields) => {
    expect(refused(RecordReading, { ...reading, ...more })).toEqual(fields);
  });

  test.each([
    [{ hours: 12 }, []],
    [{ tasks: ['oil-change', 'belt-check'] }, []],
    [{ tasks: ['oil-change', 7] }, ['tasks']],
    [{ tasks: ['DROP TABLE'] }, ['tasks']],
    [{ tasks: Array.from({ length: 61 }, (_, index) => `task-${index}`) }, ['tasks']],
    [{ tasks: { length: 1, 0: 'oil-change' } }, ['tasks']],
  ])('a service with %j', (more, fields) => {
    expect(refused(RecordService, { ...service, ...more })).toEqual(fields);
  });

  test('whatever stands in a reading, it is judged without breaking', () => {
    fc.assert(
      fc.property(
        fc.record({ id: fc.anything(), takenAt: fc.anything(), hours: fc.anything(), note: fc.anything() }),
        (body) => {
          const fields = refused(RecordReading, { ...reading, ...body });
          const isNumber = typeof body.hours === 'number' && body.hours >= 0 && body.hours <= 1_000_000;
          expect(fields.includes('hours')).toBe(!isNumber);
        },
      ),
    );
  });
});

describe('sites and pages', () => {
  test.each([
    [{ timeZone: 'Europe/Zurich', altitudeM: -400 }, []],
    [{ timeZone: 'Mars/Olympus' }, ['timeZone']],
    [{ altitudeM: 9000 }, ['altitudeM']],
    [{ name: ' ' }, ['name']],
  ])('a site with %j', (more, fields) => {
    expect(refused(AddSite, { id: ID, name: 'Coppel Joinery', ...more })).toEqual(fields);
  });

  test('a site’s name can be changed, not taken away', () => {
    expect(refused(ChangeSite, { id: ID, contact: null })).toEqual([]);
    expect(refused(ChangeSite, { id: ID, name: null })).toEqual(['name']);
  });

  test.each(['1', '50', '199', '200'])('a page of %s', (limit) => {
    expect(refused(PageQuery, { limit })).toEqual([]);
  });

  test.each(['0', '201', '-1', '1.5', '', 'all', '1e2', ' 5'])('no page of “%s”', (limit) => {
    expect(refused(PageQuery, { limit })).toEqual(['limit']);
  });
});

describe('a measurement', () => {
  const measurement = {
    id: ID,
    check: 'separator-drop',
    takenAt: '2026-11-24T08:30:00Z',
    values: { dropBar: 0.5 },
  };

  test('needs four fields; figures and short words are what it holds', () => {
    expect(refused(RecordMeasurement, measurement)).toEqual([]);
    for (const field of Object.keys(measurement)) {
      expect(refused(RecordMeasurement, { ...measurement, [field]: undefined })).toEqual([field]);
    }
    expect(
      refused(RecordMeasurement, { ...measurement, values: { look: 'dark', testedUntil: '2027-01-31' } }),
    ).toEqual([]);
  });

  test.each<[object, string[]]>([
    [{ values: { dropBar: NaN } }, ['values']],
    [{ values: { dropBar: Infinity } }, ['values']],
    [{ values: { dropBar: null } }, ['values']],
    [{ values: { look: '' } }, ['values']],
    [{ values: { look: 'x'.repeat(201) } }, ['values']],
    [{ values: { ['x'.repeat(41)]: 1 } }, ['values']],
    [{ values: Object.fromEntries(Array.from({ length: 61 }, (_, index) => [`f${index}`, 1])) }, ['values']],
    [{ values: 'much' }, ['values']],
    [{ check: 'Separator' }, ['check']],
    [{ check: 'x' }, ['check']],
    [{ baseline: 'yes' }, ['baseline']],
    [{ hours: -1 }, ['hours']],
    [{ hours: 1_000_001 }, ['hours']],
    [{ corrects: 'the last one' }, ['corrects']],
    [{ verdict: 'good' }, ['verdict']],
    [{ note: 'warm', hours: 500, baseline: true, corrects: ID, by: ID }, []],
  ])('%j is refused for %j', (more, fields) => {
    expect(refused(RecordMeasurement, { ...measurement, ...more })).toEqual(fields);
  });

  test('which ones are asked for is checked, too', () => {
    expect(
      refused(MeasurementsQuery, { check: 'pump-up', from: '2026-01-01T00:00:00Z', limit: '200' }),
    ).toEqual([]);
    expect(refused(MeasurementsQuery, { from: '2026-02-30T00:00:00Z', to: 'today', limit: '201' })).toEqual([
      'from',
      'limit',
      'to',
    ]);
    expect(refused(FindingsQuery, { verdict: 'good' })).toEqual(['verdict']);
    expect(refused(FindingsQuery, { verdict: 'stop' })).toEqual([]);
    expect(refused(CheckLibraryQuery, { compressorId: 'SP-1' })).toEqual(['compressorId']);
    expect(refused(JudgeValues, { check: 'pump-up', values: {} })).toEqual([]);
  });
});

describe('plans, putting off, starting points', () => {
  const deferral = { id: ID, task: 'oil-change', deferredAt: '2026-11-24T08:30:00Z', reason: 'No oil.' };

  test.each<[object, string[]]>([
    [{}, []],
    [{ untilOn: '2026-12-01', untilHours: 540, risk: 'None.' }, []],
    [{ task: 'vessel-test:1' }, ['task']],
    [{ reason: '  ' }, ['reason']],
    [{ reason: 'x'.repeat(2001) }, ['reason']],
    [{ untilOn: '2026-02-30' }, ['untilOn']],
    [{ untilHours: -1 }, ['untilHours']],
    [{ untilHours: Infinity }, ['untilHours']],
    [{ until: 'soon' }, ['until']],
  ])('putting off with %j', (more, fields) => {
    expect(refused(DeferTask, { ...deferral, ...more })).toEqual(fields);
  });

  test.each<[unknown, string[]]>([
    [[{ task: 'oil-change' }], []],
    [[{ task: 'oil-change', hoursUsed: 0, countsFromOn: '2026-11-24' }], []],
    [[{ task: 'oil-change', hoursUsed: null }], []],
    [[{ task: 'oil-change', hoursUsed: NaN }], ['points']],
    [[{ task: 'oil-change', countsFromOn: 'May' }], ['points']],
    [[{ task: 'oil-change', colour: 'blue' }], ['points']],
    [[{ task: 'Oil change' }], ['points']],
    [[null], ['points']],
    [['oil-change'], ['points']],
    [{ task: 'oil-change' }, ['points']],
    [[{ task: 'oil-change' }, { task: 'oil-change' }], ['points']],
  ])('starting points %j', (points, fields) => {
    const body = { id: ID, setAt: '2026-11-24T08:30:00Z', basis: 'estimate', points };
    expect(refused(SetStartingPoints, body)).toEqual(fields);
  });

  test('a plan has tasks, and its other parts by name; what stands in a task is the schema’s affair', () => {
    expect(refused(SavePlan, { id: ID, tasks: [{}] })).toEqual([]);
    expect(refused(SavePlan, { id: ID, tasks: [] })).toEqual(['tasks']);
    expect(refused(SavePlan, { id: ID, tasks: Array.from({ length: 101 }, () => ({})) })).toEqual(['tasks']);
    expect(refused(SavePlan, { id: ID, tasks: [{}], choices: 'all', overrides: 7 })).toEqual([
      'choices',
      'overrides',
    ]);
    expect(refused(PlanLibraryQuery, { family: 'steam' })).toEqual(['family']);
  });
});

describe('a vessel', () => {
  const vessel = { id: ID, siteId: ID, tag: 'R-1', kind: 'receiver', compressorIds: [ID] };

  test.each<[object, string[]]>([
    [{}, []],
    [{ ratedBar: 11, volumeL: 500, testEveryMonths: 120, lastTestOn: '2020-01-31' }, []],
    [{ compressorIds: [] }, []],
    [{ compressorIds: [ID, ID] }, ['compressorIds']],
    [{ compressorIds: 'CJ-1' }, ['compressorIds']],
    [{ kind: 'bucket' }, ['kind']],
    [{ ratedBar: 0 }, ['ratedBar']],
    [{ testEveryMonths: 601, inspectEveryMonths: 1.5 }, ['inspectEveryMonths', 'testEveryMonths']],
    [{ lastTestOn: '31.1.2020' }, ['lastTestOn']],
  ])('%j', (more, fields) => {
    expect(refused(RegisterVessel, { ...vessel, ...more })).toEqual(fields);
  });

  test('changes and examinations', () => {
    expect(refused(ChangeVessel, { id: ID, ratedBar: null, retiredOn: null })).toEqual([]);
    expect(refused(ChangeVessel, { id: ID, tag: null, compressorIds: null })).toEqual([
      'compressorIds',
      'tag',
    ]);
    const examination = { id: ID, kind: 'test', doneOn: '2026-11-24', passed: true };
    expect(refused(RecordExamination, examination)).toEqual([]);
    expect(refused(RecordExamination, { ...examination, passed: 'yes', kind: 'look' })).toEqual([
      'kind',
      'passed',
    ]);
  });
});

describe('visits, parts and the logbook', () => {
  const visit = {
    id: ID,
    siteId: ID,
    plannedOn: '2026-11-25',
    units: [{ compressorId: ID, tasks: ['oil-change'] }],
  };
  const step = {
    id: ID,
    compressorId: ID,
    kind: 'note',
    doneAt: '2026-11-25T08:00:00Z',
    session: 's',
    details: { text: 'x' },
  };
  const part = {
    id: ID,
    number: 'HW-1',
    name: 'Filter',
    class: 'element',
    answers: 'oil filter',
    fits: [],
    figures: { micron: 10 },
  };

  test('what is right passes', () => {
    expect(refused(PlanVisit, visit)).toEqual([]);
    expect(refused(RecordVisitStep, step)).toEqual([]);
    expect(refused(AddPart, part)).toEqual([]);
    expect(refused(LogbookQuery, { q: 'belt', kind: 'service', limit: '20' })).toEqual([]);
  });

  test.each<[new () => object, object, string]>([
    [PlanVisit, { ...visit, units: [] }, 'units'],
    [PlanVisit, { ...visit, units: [{ compressorId: ID, tasks: ['a b'] }] }, 'units'],
    [PlanVisit, { ...visit, units: [...visit.units, ...visit.units] }, 'units'],
    [PlanVisit, { ...visit, plannedOn: '2026-02-30' }, 'plannedOn'],
    [RecordVisitStep, { ...step, details: 'text' }, 'details'],
    [RecordVisitStep, { ...step, session: '' }, 'session'],
    [AddPart, { ...part, priceCents: 0.5 }, 'priceCents'],
    [AddPart, { ...part, priceCents: -1 }, 'priceCents'],
    [AddPart, { ...part, figures: { micron: 0 } }, 'figures'],
    [AddPart, { ...part, figures: { thread: 'x'.repeat(25) } }, 'figures'],
    [AddPart, { ...part, fits: [ID, ID] }, 'fits'],
    [LogbookQuery, { q: 'x'.repeat(121) }, 'q'],
    [LogbookQuery, { limit: '500' }, 'limit'],
  ])('%p with %j is refused at its field', (contract, sent, field) => {
    expect(refused(contract, sent)).toEqual([field]);
  });
});
