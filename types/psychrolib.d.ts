declare module 'psychrolib' {
  interface PsychroLib {
    readonly SI: number;
    SetUnitSystem(system: number): void;
    /** Pa, at °C. */
    GetSatVapPres(tempC: number): number;
    GetHumRatioFromRelHum(tempC: number, relativeHumidity: number, pressurePa: number): number;
  }
  const psychrolib: PsychroLib;
  export default psychrolib;
}
