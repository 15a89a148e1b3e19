import { costByShare, costFields, holeFields, holeLeak, yearlyCostCents } from '@entretien/core/bench';
import { checkByCode, choice, quantity, type FieldDefinition } from '@entretien/core/checks';
import { formatFigure } from '@entretien/core/quantities';
import { lazy } from 'react';
import { CheckField } from '../../../components/checks/CheckField.js';
import { CheckFields } from '../../../components/checks/CheckFields.js';
import { useJudged } from '../../../components/checks/use-judged.js';
import { useNow } from '../../../components/use-now.js';
import { BenchFrame } from '../BenchFrame.js';
import { Answer, figureOf, Figures, Picture } from '../parts.js';
import { SaveToCompressor, type Savable } from '../SaveToCompressor.js';
import { euros } from '../format-money.js';
import { Stopwatch } from '../Stopwatch.js';
import { useBenchAddress, useBenchValues, useFormat, type BenchAddress } from '../use-bench.js';

const CurveChart = lazy(() => import('../charts.js').then((part) => ({ default: part.CurveChart })));

const ways = { times: 'load and unload times', hole: 'size of a hole', fall: 'fall of pressure' } as const;
type Way = keyof typeof ways;
const wayField: FieldDefinition = choice('way', 'By', ways);
const fadField: FieldDefinition = quantity('flow', 'fadLpm', 'Free air delivered', 1, 200_000, {
  plate: 'fadLpm',
});

/** What a bench of leaks came to. */
interface Found {
  readonly sentence: string;
  readonly verdict?: 'good' | 'watch' | 'act' | 'stop' | undefined;
  readonly detail?: string | undefined;
  readonly flowLpm: number | null;
  readonly share: number | null;
  readonly measurement: Savable | null;
  readonly fields: readonly FieldDefinition[];
  readonly problems: Readonly<Record<string, string>>;
}

/** How much leaks away and what it costs: by times of work and rest, by a hole, by the fall of pressure. */
export function Leaks() {
  const address = useBenchAddress();
  const { texts, setText, unit } = address;
  const way: Way = texts['way'] === 'hole' || texts['way'] === 'fall' ? texts['way'] : 'times';
  const found = useFound(way, address);
  const costs = useBenchValues([...costFields, ...holeFields, fadField], address);
  const format = useFormat();
  // A price that is not understood must not be reckoned with the usual one instead.
  const canCost = found.flowLpm !== null && Object.keys(costs.problems).length === 0;
  const cost = canCost ? yearlyCostCents(found.flowLpm, costs.values) : null;
  const fad = costs.values.number('fadLpm');
  const hole =
    way === 'hole' && found.flowLpm !== null ? holeLeak(costs.values, address.atmosphereBarAbs) : null;
  const curve = hole?.ok
    ? hole.value.curve
    : fad && found.share !== null
      ? costByShare(fad, costs.values)
      : [];
  const at =
    way === 'hole' ? costs.values.number('diameterMm') : found.share === null ? undefined : found.share * 100;
  const yearlyCents = cost?.ok ? cost.value : null;
  return (
    <BenchFrame
      title="Leaks and their cost"
      address={address}
      inputs={
        <>
          <CheckField field={wayField} text={way} onText={(text) => setText('way', text || way)} />
          {way === 'fall' && <Stopwatch onSeconds={(seconds) => setText('seconds', String(seconds))} />}
          <CheckFields
            fields={found.fields}
            texts={texts}
            onText={setText}
            problems={found.problems}
            plate={unit}
          />
          <CheckFields
            fields={costFields}
            texts={texts}
            onText={setText}
            problems={costs.problems}
            plate={unit}
          />
        </>
      }
      save={
        way === 'hole' ? null : (
          <SaveToCompressor unit={unit} measurements={found.measurement && [found.measurement]} />
        )
      }
      formula={
        <>
          <p>By times: leak = on/(on + off) of what it delivers, with nobody using air.</p>
          <p>
            By a hole: ṁ = C·A·p·√(γ/(RT))·(2/(γ+1))^((γ+1)/(2(γ−1))), choked; C = 0.61 sharp, 0.97 well
            rounded, 1 as in the tables of the US DOE (memory).
          </p>
          <p>By the fall of pressure: the balance of a receiver with the compressor off.</p>
          <p>
            Cost = flow × power for the air × hours × price; 6.5 kW for each m³/min is usual at 7 bar: common
            practice.
          </p>
        </>
      }
    >
      <Answer
        sentence={
          found.flowLpm !== null && yearlyCents !== null
            ? `${found.sentence} It costs ${euros(yearlyCents)} a year.`
            : found.sentence
        }
        verdict={found.verdict}
        detail={found.detail}
      />
      {curve.length > 0 && at !== undefined && yearlyCents !== null && (
        <Picture>
          <CurveChart
            text={`Cost of a year over ${way === 'hole' ? 'the width of the hole' : 'the share that leaks'}: ${euros(yearlyCents)} at ${formatFigure(at)}${way === 'hole' ? ' mm' : ' %'}`}
            curves={[{ name: 'cost of a year', points: curve, ink: 'ink' }]}
            mark={{ x: at, y: yearlyCents / 100 }}
            xTitle={way === 'hole' ? 'width of the hole, mm' : 'share of delivery that leaks, %'}
            yTitle="€ a year"
          />
        </Picture>
      )}
      {found.flowLpm !== null && (
        <Figures
          items={[
            figureOf('Leak', format(found.flowLpm, 'flow'), 'free air'),
            ...(found.share === null
              ? []
              : [
                  {
                    name: 'Of delivery',
                    value: formatFigure(found.share * 100, { maxDecimals: 1 }),
                    unit: '%',
                  },
                ]),
            ...(yearlyCents === null ? [] : [{ name: 'In a year', value: euros(yearlyCents) }]),
          ]}
        />
      )}
    </BenchFrame>
  );
}

function useFound(way: Way, address: BenchAddress): Found {
  const { unit, site, texts, atmosphereBarAbs } = address;
  const now = useNow();
  const byTimes = useJudged(checkByCode('leak-load-cycle')!, pick(texts, ['onSeconds', 'offSeconds']), {
    site,
    at: now,
  });
  const byFall = useJudged(checkByCode('leak-down')!, texts, { unit, site, at: now });
  const extra = useBenchValues([fadField], address);
  const hole = useBenchValues(holeFields, address);
  const fad = extra.values.number('fadLpm') ?? null;
  const nothing = { flowLpm: null, share: null, measurement: null };
  if (way === 'hole') {
    const shared = { fields: holeFields, problems: hole.problems };
    const leak = holeLeak(hole.values, atmosphereBarAbs);
    if (!leak.ok) {
      const { code, field, sentence } = leak.problem;
      const beside = code === 'missing' || field === undefined ? {} : { [field]: sentence };
      return {
        ...nothing,
        ...shared,
        problems: { ...beside, ...hole.problems },
        sentence: code === 'missing' ? sentence : 'Correct what is marked.',
      };
    }
    return {
      ...shared,
      sentence: `A hole of ${formatFigure(hole.values.number('diameterMm')!)} mm loses air all day.`,
      detail: 'A single hole: the times or the fall of pressure tell of all of them.',
      flowLpm: leak.value.flowLpm,
      share: fad === null ? null : leak.value.flowLpm / fad,
      measurement: null,
    };
  }
  const judged = way === 'times' ? byTimes : byFall;
  const shared = {
    fields: way === 'times' ? [...byTimes.fields, fadField] : byFall.fields,
    problems: { ...extra.problems, ...judged.problems },
  };
  const { judgement } = judged;
  if (!judgement) return { ...nothing, ...shared, sentence: judged.missing ?? 'Correct what is marked.' };
  const share = (judgement.figure?.value ?? 0) / 100;
  const flow = way === 'times' ? (fad === null ? null : share * fad) : (judgement.figures[0]?.value ?? null);
  return {
    ...shared,
    sentence: judgement.reason,
    verdict: judgement.verdict,
    detail: judgement.limit ? `Limit: ${judgement.limit.text}` : undefined,
    flowLpm: flow,
    share,
    measurement: { check: way === 'times' ? 'leak-load-cycle' : 'leak-down', values: judged.values },
  };
}

function pick(texts: Readonly<Record<string, string>>, codes: readonly string[]): Record<string, string> {
  return Object.fromEntries(
    codes.flatMap((code) => (texts[code] === undefined ? [] : [[code, texts[code]]])),
  );
}
