/** Faults that the tests do not notice, each with a word why. */
export const survivors = [
  [
    'visit/admit.ts #12 if (opens?.length === 0) return []; → ',
    'Equal: what opens nothing needs no point anyway; it only spares the way there.',
  ],
  [
    "plan/judge-task.ts #9 start.basis !== 'commissioned' && start.at → start.at",
    'Equal for facts that can be recorded: nothing is put off before its machine was commissioned.',
  ],
  [
    'plan/standing.ts #9 (pressA >= RANK.due ? Number(b.safety) - Number(a.safety) :  → ',
    'Not tested so far.',
  ],
  [
    "plan/condition.ts #6 of === 'baseline' ? points.findLast → of !== 'baseline' ? points.findLast",
    'Not tested so far.',
  ],
  [
    'plan/season-wear.ts #1 relativeHumidity: 1 } → relativeHumidity: 0.5 }',
    'Equal: air of half the humidity is saturated under pressure all the same.',
  ],
  [
    'plan/season-wear.ts #6 used: usedNow ?? 1 + Math.max(0, now.hours - due) / life → used: usedNow ?? 1',
    'Not tested so far.',
  ],
  [
    'plan/severity.ts #5 if (dischargeC === null || dischargeC <= ratedC) return null → if (dischargeC === null) return null;',
    'Equal in figures: at what it is rated for oil lasts its whole life, a factor of one.',
  ],
  [
    'plan/triggers/combined.ts #6 comesBefore(inner, floor) || inner.axis === null → comesBefore(inner, floor)',
    'Not tested so far.',
  ],
  ['plan/reading-need.ts #1 const LEAST_DAYS_SINCE = 7; → const LEAST_DAYS_SINCE = 1;', 'Not tested so far.'],
  ['plan/use-warning.ts #2 >= LEAST_PULL_DAYS * DAY_MS → >= 0', 'Not tested so far.'],
  ['plan/use-warning.ts #3 .sort((a, b) => a.likelyAt - b.likelyAt)[0] → [0]', 'Not tested so far.'],
  ['plan/found-share.ts #1 Math.min(...days) * used → Math.max(...days) * used', 'Not tested so far.'],
  ['checks/library/stages.ts #2 if (gap >= 0) return err → if (gap > 5) return err', 'Not tested so far.'],
  ['checks/library/heat.ts #1 if (gas >= trip) { → if (gas > trip) {', 'Not tested so far.'],
  [
    'checks/library/stages.ts #3 stage > 2 ? { stage, optional: true } → stage > 1 ? { stage, optional: true }',
    'Not tested so far.',
  ],
  ['hours/forecast.ts #3 Math.min(24, model.level → (model.level', 'Not tested so far.'],
  [
    'hours/forecast.ts #1 const [EARLY, LATE] = [0.1, 0.9]; → const [EARLY, LATE] = [0.2, 0.8];',
    'Not tested so far.',
  ],
  [
    'hours/forecast.ts #4 earlyAt: momentOf(Math.min(early, likely)) → earlyAt: momentOf(early)',
    'Not tested so far.',
  ],
];
