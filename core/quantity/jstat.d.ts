/** As much of the package as Hallway uses; it ships no types. */
declare module 'jstat' {
  const jstat: {
    normal: { cdf(x: number, mean: number, deviation: number): number }
    beta: { inv(share: number, alpha: number, beta: number): number }
    chisquare: { inv(share: number, freedom: number): number }
    studentt: { inv(share: number, freedom: number): number; cdf(t: number, freedom: number): number }
    mean(readings: readonly number[]): number
    median(readings: readonly number[]): number
    /** `sample` divides by one less than their number. */
    stdev(readings: readonly number[], sample: boolean): number
  }
  export default jstat
}
