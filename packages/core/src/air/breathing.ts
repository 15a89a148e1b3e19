/** More carbon monoxide than this is not breathed, ppm (EN 12021 *(memory)*). */
export const BREATHED_CO_PPM = 5;
