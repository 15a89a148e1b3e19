import { ToggleButton, ToggleButtonGroup } from '@mui/material';
import { usePreferences } from '../data/preferences.js';

/** Turns every ruler from hours to days. */
export function RulerSwitch() {
  const { rulerIn, setRulerIn } = usePreferences();
  return (
    <ToggleButtonGroup
      exclusive
      size="small"
      value={rulerIn}
      onChange={(_event, value: 'hours' | 'days' | null) => value && setRulerIn(value)}
      aria-label="Show time in"
      sx={{
        flex: 'none',
        '& .MuiToggleButton-root': {
          px: 1.4,
          py: 0,
          minHeight: 32,
          '@media (pointer: coarse)': { minHeight: 44 },
          fontWeight: 600,
          textTransform: 'none',
          color: 'text.secondary',
          borderColor: 'strongRule',
          '&.Mui-selected, &.Mui-selected:hover': { bgcolor: 'text.primary', color: 'background.default' },
        },
      }}
    >
      <ToggleButton value="hours">hours</ToggleButton>
      <ToggleButton value="days">days</ToggleButton>
    </ToggleButtonGroup>
  );
}
