import { judgeSubstitute, kitAgainstVan, needsReason, type ComparedPart, type PartFigures } from './index.js';

const screw = { family: 'screw', displacementLpm: 4000, dust: 'normal' } as const;
const element: ComparedPart = {
  name: 'Intake element as fitted',
  class: 'element',
  figures: {
    ratedFlowLpm: 4500,
    micron: 10,
    thread: 'M20',
    maxTempC: 80,
    maxBar: 1,
    dustG: 300,
    lengthMm: 200,
    widthMm: 120,
  },
};

function offered(more: PartFigures = {}): ComparedPart {
  return { ...element, name: 'Another', figures: { ...element.figures, ...more } };
}

describe('a substitute', () => {
  // Worked by the rules of the trade: flow not under what the machine draws in, no coarser, same thread …
  test.each<[string, PartFigures, string]>([
    ['the same again', {}, 'fits'],
    ['just enough flow for the machine', { ratedFlowLpm: 4000 }, 'fits'],
    ['too little flow', { ratedFlowLpm: 3999 }, 'does-not-fit'],
    ['finer', { micron: 5 }, 'fits'],
    ['coarser', { micron: 25 }, 'does-not-fit'],
    ['another thread', { thread: 'M22' }, 'does-not-fit'],
    ['the same thread in other letters', { thread: 'm20' }, 'fits'],
    ['holds more dust', { dustG: 500 }, 'fits'],
    ['holds less dust', { dustG: 200 }, 'does-not-fit'],
    ['for less heat', { maxTempC: 60 }, 'does-not-fit'],
    ['for less pressure', { maxBar: 0.5 }, 'does-not-fit'],
    ['longer: somebody has to look', { lengthMm: 230 }, 'unsure'],
    ['of unknown fineness', { micron: undefined }, 'unsure'],
  ])('%s', (_what, figures, verdict) => {
    expect(judgeSubstitute(element, offered(figures), screw).verdict).toBe(verdict);
  });

  test('another thread fits by an adapter, and says so', () => {
    const judged = judgeSubstitute(element, offered({ thread: 'M22' }), screw, true);
    expect(judged.verdict).toBe('fits');
    expect(judged.figures.find(({ figure }) => figure === 'thread')!.sentence).toBe(
      'Thread M22, by an adapter to M20.',
    );
  });

  test('another kind of part stands in for nothing, whatever its figures', () => {
    const oil = { ...offered(), class: 'oil' } as const;
    expect(judgeSubstitute(element, oil, screw)).toEqual({
      verdict: 'does-not-fit',
      sentence: 'An oil cannot stand in for a filter element.',
      figures: [],
    });
  });

  test('what is wrong is said with both figures', () => {
    expect(judgeSubstitute(element, offered({ ratedFlowLpm: 3000 }), screw).sentence).toBe(
      'Rated flow 3000 L/min, under 4000 L/min.',
    );
  });

  test('oil and cartridges of breathing air need a reason, whatever the figures say', () => {
    const unit = { family: 'high-pressure', airUse: 'breathing' } as const;
    const cartridge = { name: 'Cartridge', class: 'cartridge', figures: { maxBar: 330 } } as const;
    expect(judgeSubstitute(cartridge, cartridge, unit).verdict).toBe('reason');
    expect(judgeSubstitute(cartridge, cartridge, { ...unit, airUse: 'technical' }).verdict).toBe('fits');
    expect(judgeSubstitute(cartridge, { ...cartridge, figures: { maxBar: 200 } }, unit).verdict).toBe(
      'does-not-fit',
    );
  });
});

test('what breathing air goes through is used without a reason only where the catalogue names the unit', () => {
  const unit = { family: 'high-pressure', airUse: 'breathing' } as const;
  const part = (kind: 'cartridge' | 'oil' | 'seal', fits: string[] = []) => ({ class: kind, fits });
  expect(needsReason(part('cartridge', ['u']), unit, 'u')).toBe(false);
  expect(needsReason(part('cartridge', ['v']), unit, 'u')).toBe(true);
  expect(needsReason(part('oil'), unit, 'u')).toBe(true);
  expect(needsReason(part('seal'), unit, 'u')).toBe(false);
  expect(needsReason(part('oil'), { ...unit, airUse: 'technical' }, 'u')).toBe(false);
  expect(needsReason(part('oil'), { family: 'screw' }, 'u')).toBe(false);
});

const kitPart = (id: string, answers: string, more: object = {}) => ({
  id,
  name: id,
  class: 'element' as const,
  answers,
  fits: [] as string[],
  inVan: 1,
  ...more,
});
const compressor = { family: 'screw' } as const;

test('a kit against the van: what fits this unit first, and what is short', () => {
  const part = (id: string, inVan: number, fits: string[] = []) => kitPart(id, 'Oil filter', { inVan, fits });
  const kit = [
    { part: 'oil filter', count: 2 },
    { part: 'separator element', count: 1 },
  ];
  const [filter, separator] = kitAgainstVan(
    kit,
    [part('any', 9), part('own', 1, ['u']), part('other', 5, ['v'])],
    'u',
    compressor,
  );
  expect(filter).toMatchObject({ answeredBy: { id: 'own' }, proposed: null, short: 1 });
  expect(separator).toMatchObject({ answeredBy: null, proposed: null, short: 1 });
});

test.each<[string, string, boolean]>([
  ['fine oil filter', 'oil filter', true],
  ['oil filter', 'oil filters', true],
  ['intake element', 'element, intake', true],
  ['coolant of its grade, one charge', 'coolant', true],
  ['valve gasket set', 'valve gaskets', true],
  ['oil filter', 'engine oil filter', false],
  ['oil filter', 'fuel filter', false],
  ['intake element', 'separator element', false],
  ['dryer filter element', 'line filter element', false],
  ['drain plug seal', 'shaft seal', false],
])('a kit that asks for %s is shown %s: %s', (line, answers, isShown) => {
  const [found] = kitAgainstVan([{ part: line, count: 1 }], [kitPart('p', answers)], 'u', compressor);
  expect(found!.answeredBy).toBeNull();
  expect(found!.proposed !== null).toBe(isShown);
  // What is only like it is not counted on.
  expect(found!.short).toBe(1);
});

test('a part out of the catalogue answers nothing; what is breathed through is named, never proposed', () => {
  const kit = [{ part: 'purifier cartridge', count: 1 }];
  const breathing = { family: 'high-pressure', airUse: 'breathing' } as const;
  const found = (
    more: object,
    answers = 'cartridge, purifier',
    plate: Parameters<typeof kitAgainstVan>[3] = breathing,
  ) => kitAgainstVan(kit, [kitPart('c', answers, { class: 'cartridge', ...more })], 'u', plate)[0]!;
  expect(found({})).toMatchObject({ answeredBy: null, proposed: null });
  expect(found({}, 'cartridge, purifier', { ...breathing, airUse: 'technical' }).proposed).toMatchObject({
    id: 'c',
  });
  expect(found({ fits: ['u'] }).proposed).toMatchObject({ id: 'c' });
  expect(found({ isRetired: true }, 'purifier cartridge')).toMatchObject({
    answeredBy: null,
    proposed: null,
  });
});
