/** As much of the package as the checks use; it ships no types. */
declare module 'jstat' {
  const jstat: {
    normal: { cdf(x: number, mean: number, deviation: number): number }
    mean(readings: readonly number[]): number
    median(readings: readonly number[]): number
    /** `sample` divides by one less than their number. */
    stdev(readings: readonly number[], sample: boolean): number
  }
  export default jstat
}
