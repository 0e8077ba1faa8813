/** A marginal link looks fine for 45 seconds and drops a minute later: watched for less, it has not been soaked (common practice). */
export const SHORTEST_SOAK_SECONDS = 60
