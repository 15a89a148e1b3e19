import type { ServiceTask } from '../plan/index.js';
import { shortagesOf, type Job, type StockedPart } from './index.js';

const task = (code: string, kit: ServiceTask['kit']) =>
  ({
    code,
    name: code,
    station: 'oil',
    action: 'replace',
    triggers: [],
    counting: 'last-done',
    isolation: 'stopped',
    minutes: 10,
    origin: 'practice',
    kit,
  }) satisfies ServiceTask;
const part = (id: string, answers: string, inVan: number, fits: string[] = []): StockedPart => ({
  id,
  name: id.toUpperCase(),
  class: 'element',
  answers,
  fits,
  inVan,
});
const job = (tag: string, ...tasks: ServiceTask[]): Job => ({
  compressorId: tag.toLowerCase(),
  tag,
  plate: { siteId: 's', tag, family: 'screw', commissionedOn: '2024-01-01', history: 'new' },
  tasks,
});
const filter = task('oil-filter', [{ part: 'oil filter', count: 1 }]);
const belt = task('belt', [{ part: 'belt', count: 2 }]);

test('one filter in the van does not serve two machines; enough is no shortage', () => {
  const parts = [part('f', 'oil filter', 1), part('b', 'belt', 2)];
  expect(shortagesOf([job('A', filter, belt)], parts)).toEqual([]);
  expect(shortagesOf([job('A', filter, belt), job('B', filter)], parts)).toEqual([
    { partId: 'f', name: 'F', needed: 2, inVan: 1, tags: ['A', 'B'] },
  ]);
});

test('each machine has the part that is named for it; what the catalogue does not know comes last', () => {
  const parts = [part('own', 'oil filter', 0, ['a']), part('any', 'oil filter', 5)];
  expect(shortagesOf([job('A', filter, belt), job('B', filter)], parts)).toEqual([
    { partId: 'own', name: 'OWN', needed: 1, inVan: 0, tags: ['A'] },
    { partId: null, name: 'belt', needed: 2, inVan: 0, tags: ['A'] },
  ]);
});

test('what a bigger task takes along is not counted twice', () => {
  const oil = { ...task('oil-change', [{ part: 'oil filter', count: 1 }]), covers: ['oil-filter'] };
  expect(shortagesOf([job('A', oil, filter)], [part('f', 'oil filter', 1)])).toEqual([]);
});
