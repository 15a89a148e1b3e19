import type { roles } from './index.js';
import { admitPassword, hasRight, normalLogin, normalPassword, rightModules, rights } from './index.js';

/* Written down by hand: the part’s own sentences, not the table again. */
test.each<[string, (typeof roles)[number] | null, (typeof rights)[number][]]>([
  ['nobody signed in', null, ['open']],
  ['a customer', 'customer', ['open', 'self', 'see-own']],
  ['a trainee: everything but sign', 'trainee', ['open', 'self', 'see-own', 'see', 'work']],
  ['a technician', 'technician', ['open', 'self', 'see-own', 'see', 'work', 'sign']],
  ['a lead', 'lead', [...rights]],
])('%s', (_name, role, has) => {
  expect(rights.filter((right) => hasRight(role, right))).toEqual(has);
});

test('every right says what it allows', () => {
  for (const right of rights) expect(rightModules[right].allows.length).toBeGreaterThan(10);
});

describe('a password', () => {
  const own = ['mkolden', 'Mira Kolden'];
  test.each([
    'drain the old tank',
    'Regen auf dem Dach',
    'пароль из слов',
    'x7!kq02_vLw9',
    '  blanks count too  ',
    'a'.repeat(97) + 'bcd',
  ])('“%s” is one', (text) => expect(admitPassword(text, own).ok).toBe(true));

  test.each([
    ['', 'at least 10'],
    ['short one', 'at least 10'],
    ['𝒂𝒃𝒄𝒅𝒆𝒇', 'at least 10'],
    ['aaaaaaaaaaaa', 'same letter'],
    ['abababababab', 'same letter'],
    ['Password123!', 'among the first'],
    ['1234567890', 'among the first'],
    ['Mira Kolden', 'your own name'],
    ['mkolden2026', 'your own name'],
    ['mkoldenmkolden', 'your own name'],
    [Array.from({ length: 201 }, (_, index) => 'abcdef'[index % 6]).join(''), 'at most 200'],
  ])('“%s” is none', (text, why) => {
    const outcome = admitPassword(text, own);
    expect(outcome).toMatchObject({ ok: false, problem: { field: 'password' } });
    expect(outcome.ok ? '' : outcome.problem.sentence).toContain(why);
  });

  test('is the same however its letters were put together', () => {
    expect(normalPassword('Zu\u0308rich am See')).toBe(normalPassword('Z\u00fcrich am See'));
  });
});

test('a name to sign in with is the same in capitals, and with blanks around it', () => {
  expect(normalLogin('  MKolden ')).toBe(normalLogin('mkolden'));
});
