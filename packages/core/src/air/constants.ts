/** 0 °C in kelvin. */
export const ZERO_C = 273.15;
/** Gas constant of dry air, J/(kg·K). */
export const R_AIR = 287.042;
/** Gas constant of water vapour, J/(kg·K). */
export const R_WATER = 461.524;
/** Molar mass of water over that of dry air. */
export const WATER_TO_AIR = 0.621945;
/** Ratio of specific heats of air. */
export const GAMMA = 1.4;
/** One standard atmosphere, bar. */
export const ATMOSPHERE_BAR = 1.01325;
