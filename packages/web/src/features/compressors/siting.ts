import { hasEngine, hasLubricator, type DataPlate } from '@entretien/core/machine';

/** Something to see to when a machine is set up. */
export interface SitingPoint {
  readonly code: string;
  readonly text: string;
  /** The hazard behind it, where there is one. */
  readonly caution?: string;
}

/** What to see to before a machine runs for the first time. Clearances are common practice; the manual’s own rule. */
export function sitingPoints(plate: DataPlate): readonly SitingPoint[] {
  const points: (SitingPoint | false)[] = [
    { code: 'transit', text: 'No transit damage' },
    { code: 'base', text: 'On a firm and dust-free base, level within 5°' },
    {
      code: 'clearance',
      text: 'Clearances of the manual; without one 0.6 m at the sides and back, 1.5 m in front and above. A fan where it is tighter or the room gets hotter than 38 °C',
    },
    { code: 'cooling', text: 'Cooling air crosses it freely' },
    { code: 'intake', text: 'Intake away from engines and exhausts, wind considered' },
    {
      code: 'secured',
      text: 'Receivers and cylinders secured against falling',
      caution: 'A sheared valve kills.',
    },
    hasEngine(plate)
      ? {
          code: 'outdoors',
          text: 'Outdoors, exhaust away from the intake',
          caution: 'Petrol and diesel sets never run indoors.',
        }
      : {
          code: 'electrician',
          text: 'Connected by a licensed electrician',
          caution: 'Supply, breaker and cable are an electrician’s to choose.',
        },
    plate.family === 'piston-oil-free'
      ? false
      : { code: 'oil', text: 'Oil to its level, with the right oil' },
    hasLubricator(plate) ? { code: 'lubricator', text: 'Cylinder lubricator primed by hand' } : false,
    { code: 'filter', text: 'Intake filter fitted' },
    {
      code: 'tight',
      text: 'Every fitting leak-tested at full working pressure',
      caution: 'What is tight at low pressure can leak at the top. Never tighten a joint under pressure.',
    },
  ];
  return points.filter((point) => point !== false);
}

/** What the record says of how it was set up. */
export function describeCommissioned(plate: DataPlate, seenTo: readonly string[]): string {
  const points = sitingPoints(plate);
  const format = (isSeen: boolean) =>
    points.filter(({ code }) => seenTo.includes(code) === isSeen).map(({ text }) => text);
  const [seen, open] = [format(true), format(false)];
  if (seen.length === 0) return '';
  return [`Checked: ${seen.join('; ')}.`, open.length > 0 ? `Open: ${open.join('; ')}.` : '']
    .filter(Boolean)
    .join(' ');
}
