import { honestCourse, isolationList, isolationOf, type IsolateBody } from '@entretien/core/isolation';
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { currentInstant } from '../../data/clock.js';
import { pistonPlate as plate } from '../../testing/facts.js';
import { problems, renderPage } from '../../testing/render-page.js';
import { VentTile } from './VentTile.js';

const guarded = { plate };
const point = isolationList(plate).points.find(({ kind, gauge }) => kind === 'vent' && gauge)!;

const said: IsolateBody[] = [];
const found: string[] = [];

const course = honestCourse(plate, ['receiver']);
const before = course.slice(
  0,
  course.findIndex(({ body }) => body.step === point.code),
);

/** The tile, everything before it done and so much said of it. */
function Space({ answers }: { readonly answers: readonly string[] }) {
  const start = currentInstant() - 1_200_000;
  const last = before.at(-1)!.seconds;
  const events = [
    ...before,
    ...answers.map((answer, index) => ({
      seconds: last + 60 + index * 300,
      body: { kind: 'isolate', step: point.code, answer, confirmed: true, needle: 'none' } as IsolateBody,
    })),
  ].map(({ seconds, body }, index) => ({
    id: `e${index}`,
    doneAt: start + seconds * 1000,
    by: 'mira',
    session: 'one',
    body,
  }));
  return (
    <VentTile
      here={{
        guarded,
        fold: isolationOf(guarded, events),
        by: 'mira',
        session: 'one',
        opens: ['receiver'],
        now: currentInstant(),
        record: async (body) => void said.push(body),
        onFound: (text) => void found.push(text),
      }}
      point={point}
      tile={{ code: '', name: point.name }}
      isOne
    />
  );
}

async function tile(...answers: readonly string[]) {
  said.length = 0;
  found.length = 0;
  await renderPage(<Space answers={answers} />);
}

const names = () => screen.getAllByRole('button').map(({ textContent }) => textContent);
const click = (name: RegExp) => fireEvent.click(screen.getByRole('button', { name }));

test('nothing said: one target, that it passes; every other answer behind one press', async () => {
  await tile();
  expect(names()).toEqual(['Hold: opened, it passes', 'It is otherwise']);
  click(/otherwise/);
  expect(names()).toContain('Nothing came at all, though there was pressure');
  expect(names().some((name) => name?.startsWith('Silent'))).toBe(false);
});

test.each([
  [/Nothing came at all/, 'nothing', 'the vent passes nothing'],
  [/It keeps coming/, 'keeps-coming', 'it does not fall silent'],
  [/will not move/, 'stuck', 'the vent will not move'],
])('%s keeps it shut, and is a finding', async (name, answer, finding) => {
  await tile('passes');
  click(/otherwise/);
  click(name);
  expect(said).toMatchObject([{ step: point.code, answer }]);
  expect(found).toEqual([`${point.name}: ${finding}`]);
});

test('a needle that stood at zero beforehand is said to have stood, and proves nothing yet', async () => {
  await tile('passes');
  click(/otherwise/);
  click(/stood at zero beforehand/);
  expect(said).toMatchObject([{ answer: 'silent', needle: 'stood' }]);
});

test.each([
  ['2.5', { needle: 'off', pressureBar: 2.5 }, /the needle rests at 2.5 bar on a silent vent/],
  ['0', { needle: 'fell', pressureBar: 0 }, null],
])('a needle that shows %s bar is written down as what it is', async (text, body, finding) => {
  await tile('passes');
  click(/otherwise/);
  fireEvent.change(screen.getByLabelText(/^Silent; but it shows/), { target: { value: text } });
  click(/^Save$/);
  expect(said).toMatchObject([{ answer: 'silent', ...body }]);
  if (finding === null) expect(found).toEqual([]);
  else expect(found.join()).toMatch(finding);
});

test.each(['-1', '1001', 'a lot', ''])(
  '“%s” is no pressure of a needle: nothing is recorded',
  async (text) => {
    await tile('passes');
    click(/otherwise/);
    fireEvent.change(screen.getByLabelText(/^Silent; but it shows/), { target: { value: text } });
    fireEvent.submit(screen.getByRole('button', { name: 'Save' }).closest('form')!);
    expect(said).toEqual([]);
  },
);

test('what keeps coming is fed: no sign helps before it is found and let pass anew', async () => {
  await tile('passes', 'keeps-coming');
  expect(problems().join()).toMatch(/It is being fed/);
  expect(names()).toEqual(['Hold: opened again, it passes', 'It is otherwise']);
});

test('silent with a needle that proves nothing asks for one sign more, and says what there is', async () => {
  await tile('passes', 'silent');
  await waitFor(() => expect(screen.getByText(/One sign more:$/)).toBeTruthy());
  expect(names()).toContain('Hold: a second opening on it is open, and silent');
});

test('a target that is held says it after a second, with what the needle did', async () => {
  await tile('passes');
  fireEvent.keyDown(screen.getByRole('button', { name: /^Hold: silent/ }), { key: 'Enter' });
  await waitFor(() => expect(said).toMatchObject([{ answer: 'silent', needle: 'fell' }]));
});
