import { readFileSync } from 'node:fs';
import * as checks from '@entretien/core/checks';
import { checksPage } from './checks-page-text.mjs';

test('the handbook’s page of checks is what the library says', () => {
  const page = readFileSync('docs/handbook/checks.md', 'utf8');
  expect(checksPage(checks)).toBe(page);
});
