declare module 'jstat' {
  interface Normal {
    cdf(x: number, mean: number, deviation: number): number;
    inv(p: number, mean: number, deviation: number): number;
  }
  interface StudentT {
    inv(p: number, freedom: number): number;
  }
  const jStat: { readonly normal: Normal; readonly studentt: StudentT };
  export default { jStat };
}
