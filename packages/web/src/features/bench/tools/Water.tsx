import { monthName } from '@entretien/core/basics';
import { Box, Typography } from '@mui/material';
import { seasonCartridgeHours, type WaterYear } from '@entretien/core/air';
import { waterFields, waterNow, waterYearInput, yearFields, type WaterNow } from '@entretien/core/bench';
import { checkByCode } from '@entretien/core/checks';
import { formatFigure } from '@entretien/core/quantities';
import { lazy } from 'react';
import { CheckFields } from '../../../components/checks/CheckFields.js';
import { JudgementBand } from '../../../components/checks/JudgementBand.js';
import { useJudged } from '../../../components/checks/use-judged.js';
import { useNow } from '../../../components/use-now.js';
import { BenchFrame } from '../BenchFrame.js';
import { LongWork } from '../LongWork.js';
import { Answer, Figures, Picture, type BenchFigure } from '../parts.js';
import { SaveToCompressor } from '../SaveToCompressor.js';
import { useBenchAddress, useBenchValues } from '../use-bench.js';
import { useBenchWorker } from '../use-worker.js';

const CurveChart = lazy(() => import('../charts.js').then((part) => ({ default: part.CurveChart })));
const MonthsChart = lazy(() => import('../charts.js').then((part) => ({ default: part.MonthsChart })));

/** Water that falls out and water that stays: drains, cartridge, and a whole year of both. */
export function Water() {
  const address = useBenchAddress();
  const { texts, setText, unit, site, atmosphereBarAbs } = address;
  const now = useNow();
  const fields = [...waterFields, ...yearFields];
  const { values, problems: typedProblems } = useBenchValues(fields, address);
  const water = waterNow(values, atmosphereBarAbs);
  const input = waterYearInput(values, atmosphereBarAbs);
  const problems = { ...typedProblems };
  if (!water.ok && water.problem.code !== 'missing') {
    const field = water.problem.field ?? 'intakeTempC';
    problems[fields.some(({ code }) => code === field) ? field : 'separatorTempC'] ??= water.problem.sentence;
  }
  const hasProblems = Object.keys(problems).length > 0;
  const year = useBenchWorker(input.ok && !hasProblems ? { kind: 'year', input: input.value } : null);
  const weighed = useJudged(checkByCode('cartridge-weight')!, texts, { unit: undefined, site, at: now });
  const result = year.result?.kind === 'year' ? year.result.outcome : null;
  return (
    <BenchFrame
      title="Condensate and cartridge"
      address={address}
      inputs={
        <>
          <CheckFields fields={waterFields} texts={texts} onText={setText} problems={problems} plate={unit} />
          <Typography variant="h3" component="h2">
            Over the year
          </Typography>
          <CheckFields fields={yearFields} texts={texts} onText={setText} problems={problems} plate={unit} />
          <LongWork
            work={year}
            name="Calculating the year"
            start="Calculate the year"
            stop="Stop"
            canStart={input.ok && !hasProblems}
            missing={!input.ok && !hasProblems ? input.problem.sentence : null}
          />
          <Typography variant="h3" component="h2">
            Weighed
          </Typography>
          <CheckFields fields={weighed.fields} texts={texts} onText={setText} problems={weighed.problems} />
        </>
      }
      save={
        <SaveToCompressor
          unit={unit}
          measurements={weighed.judgement && [{ check: 'cartridge-weight', values: weighed.values }]}
          refusal={
            unit && !weighed.judgement
              ? 'Weigh the cartridge to save it: the rest is calculated, not measured.'
              : undefined
          }
        />
      }
      formula={
        <>
          <p>
            Saturation pressure by Hyland and Wexler (ASHRAE Fundamentals); W = 0.622·p_v/(p − p_v) with the
            enhancement factor of dense air in p_v. What falls out is ρ_dry·(W_in − W_sat); what stays reaches
            the cartridge.
          </p>
          <p>
            Life = what it holds ÷ (water in the air × free air delivered). Drains: half of what the separator
            holds.
          </p>
          <p>
            The year is a made-up average one: a cosine over the year and one over the day. Practice gives a
            portable tower {seasonCartridgeHours.warm} h in the warm half and {seasonCartridgeHours.cold} h in
            the cold.
          </p>
        </>
      }
    >
      <Answer
        sentence={
          hasProblems
            ? 'Correct what is marked.'
            : water.ok
              ? describeWater(water.value)
              : water.problem.sentence
        }
        detail={water.ok ? describeDrain(water.value) : 'Weather, pressures and what the separator holds.'}
      />
      {result?.ok ? (
        <YearPicture year={result.value} />
      ) : (
        water.ok &&
        !hasProblems &&
        water.value.lifeCurve.length > 0 && (
          <Picture>
            <CurveChart
              text={`Life of the cartridge over the temperature of the separator: ${formatFigure(water.value.cartridge?.hours ?? 0, { maxDecimals: 0 })} h at ${formatFigure(values.number('separatorTempC') ?? 0)} °C`}
              curves={[{ name: 'life', points: water.value.lifeCurve, ink: 'ink' }]}
              mark={
                water.value.cartridge
                  ? { x: values.number('separatorTempC')!, y: water.value.cartridge.hours }
                  : undefined
              }
              xTitle="air in the separator, °C"
              yTitle="hours of a cartridge"
            />
          </Picture>
        )
      )}
      {water.ok && !hasProblems && (
        <Figures items={figuresOf(water.value, result?.ok ? result.value : null)} />
      )}
      {weighed.judgement && (
        <Box sx={{ mt: 2, maxWidth: 560 }}>
          <JudgementBand judgement={weighed.judgement} />
        </Box>
      )}
    </BenchFrame>
  );
}

const whole = (value: number) => formatFigure(value, { maxDecimals: 0 });

function describeWater({ condensateMlPerHour, cartridge }: WaterNow): string {
  const falls = `${formatFigure(condensateMlPerHour)} ml of condensate per hour`;
  return cartridge ? `${falls}; a cartridge lasts ${whole(cartridge.hours)} h.` : `${falls}.`;
}

function describeDrain({ drainMin }: WaterNow): string | undefined {
  if (drainMin === null) return undefined;
  return `Drain at least every ${whole(Math.max(1, Math.floor(drainMin)))} min of running, more in wet weather.`;
}

function figuresOf(water: WaterNow, year: WaterYear | null): BenchFigure[] {
  const { condensateGPerM3, condensateMlPerHour, vapourGPerM3, drainMin, cartridge } = water;
  return [
    {
      name: 'Condensate',
      value: formatFigure(condensateMlPerHour),
      unit: 'ml/h',
      note: `${formatFigure(condensateGPerM3)} g/m³ of free air`,
    },
    { name: 'Left in the air', value: formatFigure(vapourGPerM3, { maxDecimals: 3 }), unit: 'g/m³' },
    ...(drainMin === null
      ? []
      : [{ name: 'Between drains', value: whole(drainMin), unit: 'min', note: 'half of what it holds' }]),
    ...(cartridge
      ? [
          {
            name: 'Cartridge',
            value: whole(cartridge.hours),
            unit: 'h',
            note: `practice: ${seasonCartridgeHours.warm} h warm, ${seasonCartridgeHours.cold} h cold`,
          },
          { name: 'Its free air', value: whole(cartridge.freeAirM3), unit: 'm³' },
          ...(cartridge.fills === null
            ? []
            : [{ name: 'Fills', value: whole(cartridge.fills), note: 'from a tenth of the pressure' }]),
        ]
      : []),
    ...(year
      ? [
          {
            name: 'Water in a year',
            value: formatFigure(year.condensateL),
            unit: 'L',
            note: `${whole(year.runningHours)} h of running`,
          },
          ...(year.cartridges === null
            ? []
            : [
                {
                  name: 'Cartridges in a year',
                  value: formatFigure(year.cartridges, { maxDecimals: 1 }),
                  note: `by season hours ${formatFigure(year.bySeasonHours ?? 0, { maxDecimals: 1 })}`,
                },
              ]),
        ]
      : []),
  ];
}

function YearPicture({ year }: { readonly year: WaterYear }) {
  const { months } = year;
  const hasCartridge = months.some(({ cartridgeHours }) => cartridgeHours !== null);
  const text = months.map(
    ({ month, condensateMlPerHour, cartridgeHours }) =>
      `${monthName(month)} ${whole(condensateMlPerHour)} ml/h${cartridgeHours === null ? '' : `, ${whole(cartridgeHours)} h`}`,
  );
  return (
    <Picture>
      <MonthsChart
        text={`Water and cartridge by month: ${text.join('; ')}`}
        labels={months.map(({ month }) => monthName(month))}
        bars={months.map(({ condensateMlPerHour }) => condensateMlPerHour)}
        barTitle="condensate, ml an hour (bars)"
        line={hasCartridge ? months.map(({ cartridgeHours }) => cartridgeHours) : undefined}
        lineTitle="hours of a cartridge (line)"
      />
    </Picture>
  );
}
