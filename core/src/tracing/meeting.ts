/** Points within this of a face are on it, metres: what begins there does not meet it. */
export const ON_M = 1e-7;
/** Triangles reach so far beyond their sides, as a share of them: no ray slips through between two. */
export const EDGE = 1e-9;
