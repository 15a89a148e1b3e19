import {
  cautionOf,
  checkLibrary,
  checksFor,
  fieldsOf,
  howOf,
  judgeCheck,
  limitLines,
  type CheckValues,
  type JudgeContext,
} from '../checks/index.js';
import { independentPlates, independentVerdicts } from '../checks/independent-verdicts.data.js';
import { restOfTheTable } from '../checks/judged-rest.data.js';
import type { DataPlate } from '../machine/index.js';
import { machines } from './machines.js';
import { shared, shown } from './shown.js';

test('what every check asks for, and how it is done', () => {
  const lines = Object.entries(machines).flatMap(([name, plate]) =>
    checksFor(plate).flatMap((check) => {
      const { fields: _fields, how: _how, caution: _caution, ...rest } = check;
      return [
        [name, `${shown(rest)} ${howOf(check, plate)} ${cautionOf(check, plate) ?? ''}`] as const,
        ...fieldsOf(check, plate).map((field) => [name, `${check.code} ${shown(field)}`] as const),
      ];
    }),
  );
  expect(shared(lines)).toMatchSnapshot();
  expect(shown(limitLines)).toMatchSnapshot();
});

const STEPS = [0.4, 0.9, 1.1, 2.5];

/** The figures themselves, and each figure somewhat more or less with the others as they are; each choice, too. */
function near(check: string, values: CheckValues): CheckValues[] {
  const fields = checkLibrary.find(({ code }) => code === check)?.fields ?? [];
  const moved = Object.entries(values).flatMap(([code, value]) => {
    if (typeof value === 'number') return STEPS.map((step) => ({ ...values, [code]: value * step }));
    const field = fields.find((one) => one.code === code);
    return field?.as === 'choice'
      ? field.options.map((option) => ({ ...values, [code]: option.code }))
      : [{ ...values, [code]: '2019-01-01' }];
  });
  const without = Object.keys(values).map((code) =>
    Object.fromEntries(Object.entries(values).filter(([one]) => one !== code)),
  );
  return [values, ...moved, ...without];
}

function outcome(check: string, values: CheckValues, context: JudgeContext): string {
  const judged = judgeCheck(check, values, context);
  if (!judged.ok) return `${judged.problem.code} ${judged.problem.sentence}`;
  const { verdict, noComparison, reason, limit, figure, figures, suggests } = judged.value;
  const rest = { limit, figure, figures, suggests, ...(noComparison ? { noComparison } : {}) };
  return `${verdict} ${reason} ${shown(rest)}`;
}

/** One of each wording is enough: figures aside, what says the same is left out. */
function worded(lines: readonly string[]): string[] {
  const seen = new Set<string>();
  return lines.filter((line) => {
    const wording = line.slice(line.indexOf('=>')).replaceAll(/-?\d[\d.,e-]*/g, '#');
    return !seen.has(wording) && seen.add(wording);
  });
}

const { piston, screw, hp, hpTech } = independentPlates;
/** The machines of the second table. */
const restPlates: Readonly<Record<(typeof restOfTheTable)[number][0], DataPlate>> = {
  piston,
  screw,
  dried: screw,
  high: hp,
  maximum: hp,
  technical: hpTech,
  water: { ...piston, cooling: 'water' },
};
const rest = restOfTheTable.map(([plate, check, values]) => ({ plate, check, values }));

test.each(checkLibrary.map(({ code }) => code))('every wording of a verdict: %s', (check) => {
  const rows = [...independentVerdicts, ...rest].filter((row) => row.check === check);
  const lines = rows.flatMap((row) => {
    const plate = { ...restPlates, ...independentPlates }[row.plate];
    const context = { plate, on: '2026-06-01' } as const;
    const own = judgeCheck(check, row.values, context);
    const baseline = { values: row.values, figure: own.ok ? (own.value.figure?.value ?? null) : null };
    return near(check, row.values).flatMap((values) => [
      `${row.plate} ${shown(values)} => ${outcome(check, values, context)}`,
      `${row.plate} ${shown(values)} beside ${shown(baseline.figure)} => ${outcome(check, values, { ...context, baseline })}`,
      `${row.plate} ${shown(values)} as baseline => ${outcome(check, values, { ...context, isBaseline: true })}`,
    ]);
  });
  expect(worded(lines).join('\n')).toMatchSnapshot();
});
