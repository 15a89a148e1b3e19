import { existsSync } from 'node:fs';
import { benches } from '@entretien/core/bench';

test.each([...benches])('the bench $name has its page, found by its name', ({ page }) => {
  expect(existsSync(`packages/web/src/features/bench/tools/${page}.tsx`)).toBe(true);
});
