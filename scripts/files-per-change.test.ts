import { changes, missing } from './files-per-change.mjs';

test.each(changes)('$change still stands where it is said to', (change) => {
  expect(missing(change)).toEqual([]);
});
