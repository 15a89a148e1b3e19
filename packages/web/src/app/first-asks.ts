/** What every page asks. */
export const asksOfAll = ['/me', '/people', '/health'] as const;

interface FirstAsks {
  /** An address of the router; `:name` stands for one part of it. */
  readonly path: string;
  /** The file of its view under `features/`. */
  readonly view: string;
  /** What the view asks before anything of it can be shown, in the words of the server’s addresses. */
  readonly asks: readonly string[];
}

/**
 * What the views ask first. The build makes a small script of it that comes before all others: the view’s own files
 * and these answers are under way while the page’s frame is still being read. Every ask must be one that the view
 * makes in the same words: an interface test watches that none is made in vain.
 */
export const firstAsks: readonly FirstAsks[] = [
  {
    path: '/',
    view: 'today/Today',
    asks: [
      '/standings?limit=100',
      '/sites',
      '/stops',
      '/open-work',
      '/follow-ups',
      '/devices',
      '/findings',
      '/points?show=due',
    ],
  },
  {
    path: '/units',
    view: 'compressors/CompressorsPage',
    asks: ['/standings?limit=100', '/sites', '/stops', '/open-work'],
  },
  {
    path: '/units/:id',
    view: 'compressor/CompressorPage',
    asks: [
      '/compressors/:id',
      '/compressors/:id/standing?explain=yes',
      ...['readings', 'services', 'meter-changes', 'measurements', 'deferrals', 'starting-points'].map(
        (kind) => `/compressors/:id/${kind}?limit=100`,
      ),
      '/compressors/:id/plan',
      '/sites',
      '/compressors/:id/measurements?limit=200',
      '/vessels?compressorId=:id',
      '/stops',
      '/open-work',
      '/follow-ups?compressorId=:id',
    ],
  },
  { path: '/units/:id/plan', view: 'plan/PlanEditor', asks: ['/compressors/:id', '/compressors/:id/plan'] },
  { path: '/sites/:id/walk', view: 'walk/Walk', asks: ['/sites/:id/meters', '/stops'] },
  { path: '/visits', view: 'visits/Visits', asks: ['/visits?limit=100', '/visits?show=open&limit=100'] },
  { path: '/visits/:id', view: 'visit/Visit', asks: ['/visits/:id'] },
  { path: '/points', view: 'points/PointsPage', asks: ['/points'] },
  {
    path: '/points/:id',
    view: 'points/PointPage',
    asks: ['/points/:id', '/points/:id/work'],
  },
  { path: '/parts', view: 'spare-parts/Parts', asks: ['/parts', '/settings'] },
  { path: '/logbook', view: 'logbook/FleetLogbook', asks: ['/logbook?limit=60&'] },
  { path: '/faults', view: 'faults/FaultsPage', asks: ['/standings?limit=100'] },
  {
    path: '/units/:id/faults',
    view: 'faults/FaultFinder',
    asks: [
      '/compressors/:id',
      '/compressors/:id/measurements?limit=200',
      '/compressors/:id/repairs',
      '/fault-counts',
      '/sites',
    ],
  },
  { path: '/bench', view: 'bench/Bench', asks: [] },
  { path: '/practice', view: 'practice/PracticePage', asks: [] },
];
