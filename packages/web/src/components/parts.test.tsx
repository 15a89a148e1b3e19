import type { TaskState } from '@entretien/core/plan';
import type { Judgement, Verdict } from '@entretien/core/checks';
import { screen } from '@testing-library/react';
import { press, renderPage } from '../testing/render-page.js';
import { standingOf } from '../testing/standings.js';
import { Caution } from './Caution.js';
import { JudgementBand } from './checks/JudgementBand.js';
import { ComparedParts } from './ComparedParts.js';
import { DropMark, stateColour, stateText } from './DropMark.js';
import { NothingDue } from './NothingDue.js';
import { RunHours } from './RunHours.js';
import { Empty, ErrorState, LoadingSkeleton } from './States.js';
import { VerdictBand, VerdictMark } from './VerdictMark.js';

const states = Object.keys(stateText) as TaskState[];
const verdicts: Verdict[] = ['good', 'watch', 'act', 'stop'];

describe('a drop', () => {
  test.each(states)('%s has its word, and how much is used', async (state) => {
    await renderPage(<DropMark state={state} used={0.456} />);
    expect(screen.getByRole('img').getAttribute('aria-label')).toBe(`${stateText[state]}, 46 % used`);
  });

  test('without a share it says none', async () => {
    await renderPage(<DropMark state="unknown" used={null} />);
    expect(screen.getByRole('img').getAttribute('aria-label')).toBe('not known');
  });

  test('shapes tell states apart without colour: broken, barred, waiting', async () => {
    const shapes: string[] = [];
    for (const state of states) {
      const { container } = await shown(<DropMark state={state} used={1} />);
      const isBroken = container.querySelector('path[stroke-dasharray]') !== null;
      shapes.push([isBroken, container.querySelectorAll('rect').length].join());
    }
    const told = Object.fromEntries(states.map((state, index) => [state, shapes[index]]));
    expect(told['unknown']).not.toBe(told['fresh']);
    expect(told['put-off']).not.toBe(told['nearing']);
    expect(told['overdue']).not.toBe(told['due']);
  });

  test('late and due are of one colour, settled of another', () => {
    expect(stateColour('overdue')).toBe(stateColour('due'));
    expect(stateColour('fresh')).not.toBe(stateColour('due'));
  });
});

async function shown(part: React.ReactElement) {
  const before = document.body.children.length;
  await renderPage(part);
  return { container: document.body.children[before] as HTMLElement };
}

describe('a verdict', () => {
  test.each([
    ['good', 'good'],
    ['watch', 'keep an eye on it'],
    ['act', 'act now'],
    ['stop', 'stop: do not run'],
  ] as const)('%s is said in words beside its shape: %s', async (verdict, said) => {
    await renderPage(<VerdictMark verdict={verdict} />);
    expect(screen.getByText(said)).toBeTruthy();
  });

  test('with nothing to compare with none is given, and its vial holds no bubble', async () => {
    const { container } = await shown(<VerdictMark verdict="good" noComparison />);
    expect(screen.getByText('no comparison yet')).toBeTruthy();
    expect(container.querySelector('circle')).toBeNull();
  });

  test('the bubble leaves its lines the further off it is; stop has none', async () => {
    const bubbles = [];
    for (const verdict of verdicts) {
      const { container } = await shown(<VerdictMark verdict={verdict} />);
      bubbles.push(container.querySelector('circle')?.getAttribute('cx') ?? null);
    }
    const [good, watch, act, stop] = bubbles;
    expect(Number(watch)).toBeGreaterThan(Number(good));
    expect(Number(act)).toBeGreaterThan(Number(watch));
    expect(stop).toBeNull();
  });

  test('a band is named for everybody', async () => {
    await renderPage(<VerdictBand verdict="act">Too hot.</VerdictBand>);
    expect(screen.getByRole('status').getAttribute('aria-label')).toBe('Verdict: act now');
    expect(screen.getByText('Too hot.')).toBeTruthy();
  });
});

describe('a judgement', () => {
  const judgement: Judgement = {
    verdict: 'watch',
    reason: '0.8 bar lost in the element.',
    limit: { value: 0.7, text: '0.7 bar', origin: 'practice' },
    figure: null,
    figures: [],
    suggests: [{ task: 'separator-replace', text: 'New separator element' }],
  };

  test('says reason, limit with its origin, and what to do next', async () => {
    await renderPage(<JudgementBand judgement={judgement} />);
    expect(screen.getByText('0.8 bar lost in the element.')).toBeTruthy();
    expect(screen.getByText('Limit: 0.7 bar, common practice')).toBeTruthy();
    expect(screen.getByText('New separator element').tagName).toBe('LI');
  });

  test.each([
    ['book', 'by the manual'],
    ['label', 'by its label'],
    ['plate', 'by the data plate'],
    ['standard', 'by the standard'],
    ['baseline', 'by its own baseline'],
  ] as const)('a limit of origin %s is %s', async (origin, text) => {
    await renderPage(<JudgementBand judgement={{ ...judgement, limit: { ...judgement.limit!, origin } }} />);
    expect(screen.getByText(`Limit: 0.7 bar, ${text}`)).toBeTruthy();
  });

  test('without a limit, and with nothing to do, it says neither', async () => {
    await renderPage(<JudgementBand judgement={{ ...judgement, limit: null, suggests: [] }} />);
    expect(screen.queryByText(/Limit/)).toBeNull();
    expect(document.querySelector('li')).toBeNull();
  });
});

describe('run hours', () => {
  test.each([
    ['read', {}, '1,200h'],
    ['estimated', { runHoursBasis: 'estimated' }, '1,200est.'],
    ['declared', { runHoursBasis: 'declared' }, '1,200est.'],
  ])('%s', async (_name, more, text) => {
    const { container } = await shown(<RunHours of={standingOf([], more)} />);
    expect(container.textContent!.replaceAll(/\s/g, '')).toBe(text);
  });

  test('after a change of the meter they are the meter’s, with the total beside', async () => {
    const meter = { offset: 900, fittedAtHours: 900, counts: 'total' };
    const { container } = await shown(<RunHours of={standingOf([], { meter })} />);
    expect(container.textContent!.replaceAll(/\s/g, '')).toBe('300h1,200total');
  });

  test('not known they are not shown', async () => {
    const { container } = await shown(<RunHours of={standingOf([], { runHours: null })} />);
    expect(container.textContent).toBe('');
  });
});

test('parts are compared figure by figure, what is too low is said', async () => {
  const figures = [
    { figure: 'flow', holds: 'no', sentence: '700 for 900 L/min' },
    { figure: 'fineness', holds: 'unknown', sentence: 'Fineness not known' },
  ];
  const judged = { verdict: 'does-not-fit', sentence: 'Its flow is too low.', figures };
  await renderPage(<ComparedParts judged={judged as never} />);
  expect(screen.getByText('Does not fit')).toBeTruthy();
  expect(screen.getByText('too low')).toBeTruthy();
  expect(screen.getByText('not known')).toBeTruthy();
});

test('nothing to do is not the same as nobody can tell', async () => {
  await renderPage(<NothingDue unit={standingOf([])} />);
  expect(screen.getByText('Nothing to do')).toBeTruthy();
  await renderPage(<NothingDue unit={standingOf([], { unjudged: 'broken' })} />);
  expect(screen.getByText('Cannot be judged')).toBeTruthy();
});

test('a caution is a note, with its words', async () => {
  await renderPage(<Caution text="Hot oil." />);
  expect(screen.getByRole('note').textContent).toBe('Hot oil.');
});

test('waiting is said, an error has its sentence and a way to try again', async () => {
  let tries = 0;
  await renderPage(
    <>
      <LoadingSkeleton lines={2} />
      <ErrorState error={new Error('The server does not answer.')} onRetry={() => void (tries += 1)} />
      <Empty title="No vessels yet">Add the first.</Empty>
    </>,
  );
  expect(screen.getByLabelText('Loading').getAttribute('aria-busy')).toBe('true');
  expect(screen.getByText('The server does not answer.')).toBeTruthy();
  await press('Try again');
  expect(tries).toBe(1);
  expect(screen.getByText('No vessels yet')).toBeTruthy();
});
