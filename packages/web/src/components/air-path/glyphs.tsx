const ink = 'var(--mui-palette-text-primary)';
const ground = 'var(--mui-palette-background-paper)';
const thin = { fill: 'none', stroke: ink, strokeWidth: 1.3 } as const;
const shape = { fill: ground, stroke: ink, strokeWidth: 1.6 } as const;

/** Later stages squeeze less air: each is drawn smaller than the one before. */
function Cylinder({ stage }: { readonly stage: number }) {
  const half = 24 - stage * 3;
  const top = 16 - stage;
  return (
    <g>
      <rect x={-half} y={-top} width={half * 2} height={top + 26} {...shape} />
      <line x1={-half} x2={half} y1={8} y2={8} {...thin} />
      <line x1={0} x2={0} y1={8} y2={38} stroke={ink} strokeWidth={3} />
      <text y={2} textAnchor="middle" fontSize={13} fontWeight={700} fill={ink}>
        {stage}
      </text>
    </g>
  );
}

function Cooler() {
  return (
    <g>
      <path d="M-20 0 l4 -10 l7 20 l7 -20 l7 20 l7 -20 l7 20 l1 -10" {...thin} strokeWidth={1.6} />
    </g>
  );
}

function Separator() {
  return (
    <g>
      <path d="M-10 -22 H10 V20 L0 30 L-10 20 Z" {...shape} />
      <line x1={0} x2={0} y1={30} y2={40} {...thin} />
      <path d="M-5 4 H5 M-3 9 H3" {...thin} />
    </g>
  );
}

function Valve({ bar = true }: { readonly bar?: boolean }) {
  return (
    <g>
      <path d="M-10 -10 L8 0 L-10 10 Z" {...shape} />
      {bar && <line x1={9} x2={9} y1={-11} y2={11} {...thin} strokeWidth={1.8} />}
    </g>
  );
}

function Box({ children }: { readonly children?: React.ReactNode }) {
  return (
    <g>
      <rect x={-15} y={-16} width={30} height={32} {...shape} />
      {children}
    </g>
  );
}

const drawings: Readonly<Record<string, () => React.ReactNode>> = {
  'pre-filter': () => (
    <Box>
      <path
        d="M-15 -8 H15 M-15 0 H15 M-15 8 H15 M-7 -16 V16 M0 -16 V16 M7 -16 V16"
        {...thin}
        strokeWidth={0.8}
      />
    </Box>
  ),
  intake: () => (
    <g>
      <path d="M-14 -15 H8 L15 -7 V7 L8 15 H-14 Z" {...shape} />
      <path d="M-8 -9 V9 M-3 -9 V9 M2 -9 V9 M7 -9 V9" {...thin} strokeWidth={1} />
    </g>
  ),
  'intake-valve': () => <Valve bar={false} />,
  airend: () => (
    <g>
      <rect x={-24} y={-17} width={48} height={34} rx={4} {...shape} />
      <circle cx={-8} r={11} {...thin} />
      <circle cx={9} r={9} {...thin} />
      <path d="M-8 -11 L-8 11 M-19 0 H3 M9 -9 V9 M0 0 H18" {...thin} strokeWidth={0.9} />
    </g>
  ),
  aftercooler: () => <Cooler />,
  'water-separator': () => <Separator />,
  'final-separator': () => <Separator />,
  dryer: () => (
    <Box>
      <path d="M0 -10 V10 M-9 -5 L9 5 M-9 5 L9 -5" {...thin} />
    </Box>
  ),
  receiver: () => (
    <g>
      <rect x={-25} y={-14} width={50} height={28} rx={14} {...shape} />
      <path d="M-15 14 V20 M15 14 V20 M0 14 V22" {...thin} />
    </g>
  ),
  tower: () => (
    <g>
      <path d="M-15 -30 Q0 -42 15 -30 V34 H-15 Z" {...shape} />
      <path d="M-10 -20 H10 M-10 -11 H10 M-10 -2 H10 M-10 7 H10 M-10 16 H10" {...thin} strokeWidth={1} />
    </g>
  ),
  'minimum-pressure-valve': () => <Valve />,
  'pressure-maintaining-valve': () => (
    <g>
      <Valve />
      <path d="M-1 -6 V-18 M-6 -18 H4" {...thin} />
    </g>
  ),
  'check-valve': () => (
    <g>
      <circle r={12} {...shape} />
      <path d="M-7 -7 L7 0 L-7 7 M8 -7 V7" {...thin} />
    </g>
  ),
  fill: () => (
    <g>
      <path d="M-20 0 H0 Q8 0 8 8 V12" {...thin} strokeWidth={1.6} />
      <path d="M4 12 H12 V17 Q17 19 17 25 V40 Q17 46 8 46 Q-1 46 -1 40 V25 Q-1 19 4 17 Z" {...shape} />
    </g>
  ),
  outlet: () => (
    <g>
      <circle r={11} {...shape} />
      <path d="M-5 0 H5 M1 -4 L5 0 L1 4" {...thin} />
    </g>
  ),
  crankcase: () => (
    <g>
      <path d="M-16 -8 H16 V6 Q16 12 10 12 H-10 Q-16 12 -16 6 Z" {...shape} />
      <line x1={-15} x2={15} y1={0} y2={0} {...thin} />
    </g>
  ),
  oil: () => (
    <g>
      <path d="M-16 -8 H16 V6 Q16 12 10 12 H-10 Q-16 12 -16 6 Z" {...shape} />
      <line x1={-15} x2={15} y1={0} y2={0} {...thin} />
    </g>
  ),
  'oil-filter': () => (
    <g>
      <rect x={-9} y={-13} width={18} height={24} rx={2} {...shape} />
      <path d="M-11 -13 H11 M-4 -7 V6 M0 -7 V6 M4 -7 V6" {...thin} />
    </g>
  ),
  'thermostatic-valve': () => (
    <g>
      <path d="M0 2 L-12 -7 V11 Z M0 2 L12 -7 V11 Z M0 2 V-9" {...shape} />
      <circle cy={-11} r={3} {...thin} />
    </g>
  ),
  drive: () => (
    <g>
      <path d="M-12 -10 L12 -6 M-12 10 L12 6" {...thin} />
      <circle cx={-12} r={10} {...shape} />
      <circle cx={12} r={6} {...shape} />
    </g>
  ),
  motor: () => (
    <g>
      <circle r={13} {...shape} />
      <text y={5} textAnchor="middle" fontSize={13} fontWeight={700} fill={ink}>
        M
      </text>
    </g>
  ),
  cooling: () => (
    <g>
      <circle r={13} {...shape} />
      <path
        d="M0 0 Q-2 -10 5 -11 Q6 -4 0 0 Q10 -1 11 5 Q4 7 0 0 Q2 10 -5 11 Q-6 4 0 0 Q-10 1 -11 -5 Q-4 -7 0 0"
        {...thin}
        strokeWidth={1}
      />
    </g>
  ),
  relief: () => (
    <g>
      <circle r={12} {...shape} />
      <path d="M0 0 L7 -6" {...thin} strokeWidth={1.8} />
      <path d="M-8 4 A9 9 0 1 1 8 4" {...thin} strokeWidth={0.8} />
    </g>
  ),
  'co-monitor': () => (
    <g>
      <rect x={-14} y={-11} width={28} height={22} rx={3} {...shape} />
      <text y={4.5} textAnchor="middle" fontSize={12} fontWeight={700} fill={ink}>
        CO
      </text>
    </g>
  ),
  collector: () => (
    <g>
      <path d="M-11 -9 H11 L8 12 H-8 Z" {...shape} />
      <path d="M-10 -2 H10" {...thin} />
    </g>
  ),
};

/** Half the width in which a drawing lets the air line through itself, to either side. */
export function openWidth(code: string): { readonly left: number; readonly right: number } {
  if (code.startsWith('intercooler') || code === 'aftercooler') return { left: 20, right: 20 };
  return code === 'fill' ? { left: 20, right: 0 } : { left: 0, right: 0 };
}

/** How a station is drawn, about its own middle on the air line. */
export function StationGlyph({ code, vessel = false }: { readonly code: string; readonly vessel?: boolean }) {
  const stage = /^stage-(\d)$/.exec(code)?.[1];
  if (stage) return <Cylinder stage={Number(stage)} />;
  if (code.startsWith('intercooler')) return <Cooler />;
  if (code === 'separator' && vessel) {
    return (
      <g>
        <rect x={-14} y={-34} width={28} height={66} rx={12} {...shape} />
        <rect x={-8} y={-26} width={16} height={26} {...thin} />
        <path d="M-14 14 H14" {...thin} />
      </g>
    );
  }
  if (code.startsWith('separator')) return <Separator />;
  return drawings[code]?.() ?? <Box />;
}
