/** What a person does and looks at, at one place of a point of isolation. */
export interface Place {
  /** Valves that are shut. */
  readonly shuts?: readonly string[];
  /** What is opened to the air; left out where it vents by itself. */
  readonly opens?: readonly string[];
  /** What is heard there without opening anything. */
  readonly hears?: string;
  readonly gauge?: string;
  /** The space that it should empty. */
  readonly space?: string;
}

/** How a simulated machine is made safe by hand, and what each work on it really opens. */
export interface Handling {
  /** By point of its isolation, or point/place. */
  readonly places: Readonly<Record<string, Place>>;
  /** Spaces that work really opens, by its code: reckoned from what is unscrewed, not from the guard's list. */
  readonly opened: Readonly<Record<string, readonly string[]>>;
  /** Work at something that stands by itself between its own valves: the machine may run meanwhile. */
  readonly mayRun: readonly string[];
}

const piston: Handling = {
  places: {
    network: { shuts: ['valve-network'] },
    receiver: { opens: ['drain-receiver'], gauge: 'receiver', space: 'receiver' },
    'head-side': {
      opens: ['bleed-intercooler'],
      hears: 'unloader',
      gauge: 'intercooler',
      space: 'intercooler',
    },
  },
  opened: {
    outside: [],
    oil: [],
    // Turned by hand: what pushes on a piston is the air before its suction valve.
    belt: ['intercooler'],
    crankcase: ['intercooler', 'head-side'],
    stages: ['intercooler', 'head-side'],
    receiver: ['receiver'],
    'check-valve': ['receiver', 'head-side'],
  },
  mayRun: [],
};

const oilFree: Handling = {
  places: {
    outlet: { shuts: ['valve-outlet'], opens: ['trigger'] },
    receiver: { opens: ['drain-receiver'], gauge: 'receiver', space: 'receiver' },
    'head-side': { hears: 'unloader', space: 'head-side' },
  },
  opened: {
    outside: [],
    receiver: ['receiver'],
    'check-valve': ['receiver', 'head-side'],
    stages: ['head-side'],
  },
  mayRun: [],
};

const screw: Handling = {
  places: {
    outlet: { shuts: ['valve-outlet'] },
    vessel: { opens: ['vent-vessel'], gauge: 'vessel', space: 'vessel' },
    'outlet-side': { opens: ['drain-separator'], space: 'outlet-side' },
    'receiver-valves': { shuts: ['valve-receiver-in', 'valve-receiver-out'] },
    receiver: { opens: ['drain-receiver'], gauge: 'receiver', space: 'receiver' },
  },
  opened: {
    outside: [],
    belt: ['vessel'],
    oil: ['vessel'],
    separator: ['vessel', 'outlet-side'],
    receiver: ['receiver'],
  },
  mayRun: ['receiver'],
};

const portable: Handling = {
  places: {
    vessel: { opens: ['vent-vessel'], gauge: 'vessel', space: 'vessel' },
    manifold: { opens: ['vent-outlet', 'vent-hose'], space: 'outlet-side' },
  },
  opened: { outside: [], belt: ['vessel'], oil: ['vessel'], separator: ['vessel', 'outlet-side'] },
  mayRun: [],
};

const waterCooled: Handling = {
  places: {
    delivery: { shuts: ['valve-delivery'] },
    'air-side/low': { opens: ['drain-low'], gauge: 'low', space: 'low' },
    'air-side/high': { opens: ['drain-high'], gauge: 'high', space: 'high' },
    'air-side/separator': { opens: ['drain-separator'], gauge: 'separator', space: 'separator' },
    'receiver-valves': { shuts: ['valve-delivery', 'valve-network'] },
    receiver: { opens: ['drain-receiver'], gauge: 'receiver', space: 'receiver' },
  },
  opened: {
    outside: [],
    oil: [],
    belt: ['low', 'high', 'separator'],
    valves: ['low', 'high', 'separator'],
    stages: ['low', 'high', 'separator'],
    crankcase: ['low', 'high', 'separator'],
    receiver: ['receiver'],
  },
  mayRun: ['receiver'],
};

/** A high-pressure set of so many stages. */
export function highPressureHandling(stages: number): Handling {
  const between = Array.from({ length: stages - 1 }, (_, index) => `stage-${index + 1}`);
  return {
    places: {
      bank: { shuts: ['valve-bank-1', 'valve-bank-2'] },
      panel: { opens: ['vent-panel'], gauge: 'panel', space: 'panel' },
      tower: { opens: ['bleed-tower'], gauge: 'tower', space: 'tower' },
      ...Object.fromEntries(
        between.map((code, index): [string, Place] => [
          `stages/${code}`,
          { opens: [`drain-${index + 1}`], gauge: code, space: code },
        ]),
      ),
    },
    opened: {
      outside: [],
      oil: [],
      belt: between,
      tower: ['tower', 'panel'],
      stages: [...between, 'tower'],
      panel: ['panel', 'tower'],
    },
    mayRun: [],
  };
}

export const handlings = { piston, oilFree, screw, portable, waterCooled } as const;
