import { formatHoursSeen } from '@entretien/core/hours';
import { Box } from '@mui/material';
import type { PlanPreviewView, StandingView } from '@entretien/contracts';
import { DAY_MS } from '@entretien/core/basics';
import { usePreferences } from '../../data/preferences.js';
import { Drop } from '../../components/DropMark.js';
import { rulerNow, xOf } from '../../components/ruler/ruler-points.js';
import { SmallScale } from '../../components/ruler/SmallScale.js';
import { formatDate } from '../../components/describe-due.js';
import { useWidth } from '../../components/use-width.js';

interface ComingRulerProps {
  readonly points: PlanPreviewView['coming'][string];
  readonly standing: StandingView;
  readonly timeZone: string;
}

const HEIGHT = 78;
const LINE = 40;

/** The next points of one task on this unit's ruler, were each done at its point. */
export function ComingRuler({ points, standing, timeZone }: ComingRulerProps) {
  const [measure, width] = useWidth<HTMLDivElement>();
  const chosen = usePreferences((preferences) => preferences.rulerIn);
  const now = rulerNow(standing);
  const mode = chosen === 'hours' && now.runHours !== null ? 'hours' : 'days';
  const placed = points.flatMap(({ hours, at, on }) => {
    const offset =
      mode === 'hours'
        ? hours === null
          ? null
          : hours - now.runHours!
        : at === null
          ? null
          : (Date.parse(at) - now.at) / DAY_MS;
    if (offset === null) return [];
    const text =
      mode === 'hours' ? formatHoursSeen(standing.meter, hours!) : formatDate(on!, now.at, timeZone);
    return [{ offset, text }];
  });
  const last = Math.max(mode === 'days' ? 30 : 20, ...placed.map(({ offset }) => offset));
  const first = Math.min(0, ...placed.map(({ offset }) => offset));
  const view = { from: first - (last - first) * 0.08, to: last + (last - first) * 0.08 };
  return (
    <Box ref={measure} aria-hidden sx={{ minHeight: HEIGHT }}>
      {width > 0 && (
        <svg width={width} height={HEIGHT} style={{ display: 'block' }}>
          <SmallScale view={view} mode={mode} now={now} width={width} line={LINE} above={18} />
          {placed.map(({ offset, text }) => {
            const x = xOf(offset, view, width);
            return (
              <g key={offset} transform={`translate(${x} ${LINE - 3})`}>
                <g transform="scale(0.85)">
                  <Drop state="fresh" used={0.5} />
                </g>
                <text
                  y={-18}
                  x={Math.min(0, width - 34 - x) + Math.max(0, 34 - x)}
                  textAnchor="middle"
                  fontSize={12}
                  fontWeight={650}
                  fill="var(--mui-palette-text-primary)"
                >
                  {text}
                </text>
              </g>
            );
          })}
        </svg>
      )}
    </Box>
  );
}
