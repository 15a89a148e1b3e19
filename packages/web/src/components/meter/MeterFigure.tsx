import { MOST_METER_HOURS } from '@entretien/core/hours';
import type { ComponentProps } from 'react';
import { QuantityField } from '../QuantityField.js';

type MeterFigureProps = Omit<ComponentProps<typeof QuantityField>, 'kind' | 'min' | 'max'>;

/** The figure that stands on a meter, within what a meter can show. */
export function MeterFigure(field: MeterFigureProps) {
  return <QuantityField label="Figure on the meter" {...field} kind="hours" min={0} max={MOST_METER_HOURS} />;
}
