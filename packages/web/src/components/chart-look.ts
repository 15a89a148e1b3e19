import { useColorScheme } from '@mui/material/styles';
import { dark, light, type Tokens } from './theme/tokens.js';

/** The colours of the theme that is shown, for what is drawn on a canvas. */
export function useTokens(): Tokens {
  const { mode, systemMode } = useColorScheme();
  return (mode === 'system' ? systemMode : mode) === 'dark' ? dark : light;
}

/** The type of figures on a chart. */
export const chartFigures = { family: '"Archivo Variable", sans-serif', size: 12 };

/** What every chart is like. */
export const chartShared = {
  animation: false,
  maintainAspectRatio: false,
  responsive: true,
  interaction: { mode: 'nearest', intersect: false },
} as const;

export const tooltipLook = { displayColors: false, titleFont: chartFigures, bodyFont: chartFigures } as const;

/** An upright axis with few, quiet figures. */
export function uprightAxis(tokens: Tokens) {
  return {
    grid: { color: tokens.hairline },
    border: { display: false },
    ticks: { color: tokens.secondInk, font: chartFigures, maxTicksLimit: 6 },
  };
}
