/** As stations stand under their drawing, where room is short. */
const shortNames: Readonly<Record<string, string>> = {
  intake: 'Intake',
  'check-valve': 'Check valve',
  separator: 'Separator',
  'pre-filter': 'Pre-filter',
  'intake-valve': 'Intake valve',
  'minimum-pressure-valve': 'Min. pressure',
  'water-separator': 'Water sep.',
  'final-separator': 'Final sep.',
  tower: 'Tower',
  'pressure-maintaining-valve': 'Holding valve',
  fill: 'Fill',
  crankcase: 'Oil',
  relief: 'Relief',
  collector: 'Collector',
  'thermostatic-valve': 'Thermostat',
  'oil-filter': 'Oil filter',
  oil: 'Oil',
};

/** A station in short; undefined where its name is short enough. */
export function shortStationName(code: string): string | undefined {
  return shortNames[code];
}
