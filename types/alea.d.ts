declare module 'seedrandom/lib/alea.js' {
  /** A generator of chance from a seed, the same everywhere: 0 to 1. */
  const alea: (seed: string) => () => number;
  export default alea;
}
