import { ownAir, ownAirFields, USUAL_YEARS, type OwnAir as Found } from '@entretien/core/bench';
import { formatFigure } from '@entretien/core/quantities';
import { lazy } from 'react';
import { CheckFields } from '../../../components/checks/CheckFields.js';
import { BenchFrame } from '../BenchFrame.js';
import { exactEuros } from '../format-money.js';
import { Answer, figureOf, Figures, Picture } from '../parts.js';
import { useBenchAddress, useBenchValues, useFormat } from '../use-bench.js';

const CurveChart = lazy(() => import('../charts.js').then((part) => ({ default: part.CurveChart })));

/** What a fill costs on the own set, against one that is bought elsewhere. */
export function OwnAir() {
  const address = useBenchAddress();
  const { texts, setText, unit, atmosphereBarAbs } = address;
  const { values, problems: typed } = useBenchValues(ownAirFields, address);
  const outcome = ownAir(values, atmosphereBarAbs);
  const problems = { ...typed };
  if (!outcome.ok && outcome.problem.code !== 'missing')
    problems[outcome.problem.field ?? 'toBar'] ??= outcome.problem.sentence;
  const isWrong = Object.keys(problems).length > 0;
  const found = outcome.ok && !isWrong ? outcome.value : null;
  const format = useFormat();
  return (
    <BenchFrame
      title="Own air or bought"
      address={address}
      inputs={
        <CheckFields fields={ownAirFields} texts={texts} onText={setText} problems={problems} plate={unit} />
      }
      formula={
        <>
          <p>
            Air of a fill from both pressures, real gas at 20 °C; minutes = air ÷ free air delivered; energy =
            power × time × price; cartridge = its price × time ÷ its life.
          </p>
          <p>
            Service and write-off ({USUAL_YEARS} years where nobody says otherwise: common practice) are
            shared by the fills of a year. Who fills for others needs what local law asks for: that is not in
            it.
          </p>
        </>
      }
    >
      <Answer
        sentence={
          found
            ? describe(found)
            : !outcome.ok && !isWrong
              ? outcome.problem.sentence
              : 'Correct what is marked.'
        }
      />
      {found && (
        <>
          <Picture>
            <CurveChart
              text={`A fill on the own set over the fills of a year: ${exactEuros(found.ownCents)} at ${formatFigure(values.number('fills')!)}`}
              curves={[{ name: 'a fill on the own set', points: found.curve, ink: 'ink' }]}
              mark={{ x: values.number('fills')!, y: found.ownCents / 100 }}
              xTitle="fills a year"
              yTitle="€ a fill"
            />
          </Picture>
          <Figures
            items={[
              figureOf('Air of a fill', format(found.freeAirL, 'volume'), 'free air'),
              { name: 'It takes', value: formatFigure(found.minutes, { maxDecimals: 1 }), unit: 'min' },
              { name: 'Energy', value: exactEuros(found.energyCents) },
              { name: 'Cartridge', value: exactEuros(found.cartridgeCents) },
              { name: 'Service and write-off', value: exactEuros(found.fixedCents) },
              { name: 'Bought', value: exactEuros(found.boughtCents) },
            ]}
          />
        </>
      )}
    </BenchFrame>
  );
}

function describe({ ownCents, boughtCents, worthFromFills }: Found): string {
  const compared = `A fill costs ${exactEuros(ownCents)} on the own set, ${exactEuros(boughtCents)} elsewhere.`;
  if (worthFromFills === null)
    return `${compared} Energy and cartridge alone cost more: the own set never pays for itself by its fills.`;
  return `${compared} From ${formatFigure(worthFromFills)} fills a year on the own set is cheaper.`;
}
