declare module 'jstat' {
  interface Normal {
    cdf(x: number, mean: number, deviation: number): number;
    inv(p: number, mean: number, deviation: number): number;
  }
  const jStat: { readonly normal: Normal };
  export default { jStat };
}
