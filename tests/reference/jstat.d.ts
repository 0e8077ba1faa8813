/** As much of the package as the checks use; it ships no types. */
declare module 'jstat' {
  const jstat: { normal: { cdf(x: number, mean: number, deviation: number): number } }
  export default jstat
}
