import { MenuItem, TextField } from '@mui/material';
import type { RegisterVessel } from '@entretien/contracts';
import { connectorBars, cylinderGases, type CylinderGas } from '@entretien/core/filling';
import { DayField } from '../../components/DayField.js';

interface CylinderEntry {
  readonly connectorBar: string;
  readonly gas: CylinderGas;
  readonly lifeEndsOn: string;
}

export const emptyCylinder: CylinderEntry = { connectorBar: '', gas: 'air', lifeEndsOn: '' };

/** What was entered of it, as it is sent. */
export function cylinderFields({ connectorBar, gas, lifeEndsOn }: CylinderEntry): Partial<RegisterVessel> {
  return {
    ...(connectorBar === '' ? {} : { connectorBar: Number(connectorBar) }),
    ...(gas === 'air' ? {} : { gas }),
    ...(lifeEndsOn === '' ? {} : { lifeEndsOn }),
  };
}

const gasTexts: Readonly<Record<CylinderGas, string>> = {
  air: 'air',
  oxygen: 'oxygen',
  nitrox: 'nitrox',
  other: 'something else',
};

interface CylinderInputsProps {
  readonly cylinder: CylinderEntry;
  readonly onCylinder: (cylinder: CylinderEntry) => void;
}

/** What only cylinders have: without it, nothing is filled. */
export function CylinderInputs({ cylinder, onCylinder }: CylinderInputsProps) {
  return (
    <>
      <TextField
        select
        label="Its valve is marked"
        value={cylinder.connectorBar}
        onChange={(event) => onCylinder({ ...cylinder, connectorBar: event.target.value })}
        helperText="A connector for less does not belong on it."
      >
        {connectorBars.map((one) => (
          <MenuItem key={one} value={String(one)}>
            {one} bar
          </MenuItem>
        ))}
      </TextField>
      <TextField
        select
        label="Cleaned for"
        value={cylinder.gas}
        onChange={(event) => onCylinder({ ...cylinder, gas: event.target.value as CylinderGas })}
        helperText="From a compressor only those for air are filled."
      >
        {cylinderGases.map((one) => (
          <MenuItem key={one} value={one}>
            {gasTexts[one]}
          </MenuItem>
        ))}
      </TextField>
      <DayField
        label="Its life ends"
        day={cylinder.lifeEndsOn}
        onDay={(lifeEndsOn) => onCylinder({ ...cylinder, lifeEndsOn })}
        hint="Composites carry a last day."
      />
    </>
  );
}
