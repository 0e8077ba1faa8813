/**
 * The number of the rules by which this Hallway judges runs, needs and proofs. It is raised with every change that judges some plan otherwise; a handover says by
 * which it was judged, and its page says where these are others now.
 */
export const JUDGING_RULES = 1
