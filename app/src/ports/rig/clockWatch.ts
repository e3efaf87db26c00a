/** So long is looked at before a clock is said to stand. */
const SPAN_S = 4;
/** Slower than this share of the time that passed, a clock stands: a machine that is only busy keeps above it. */
const STANDS = 0.1;

/**
 * Tells a device that stopped, or a machine that slept, from one that is only slow: of the last
 * seconds nearly nothing passed on the audio clock. What a slow machine loses is counted elsewhere.
 * @returns to be called often with the time of the wall and of the audio clock, s; true once that stands
 */
export function clockWatch(): (wallS: number, audioS: number) => boolean {
  let from: { wallS: number; audioS: number } | null = null;
  return (wallS, audioS) => {
    from ??= { wallS, audioS };
    const passed = wallS - from.wallS;
    if (passed < SPAN_S) return false;
    const stands = audioS - from.audioS < STANDS * passed;
    from = { wallS, audioS };
    return stands;
  };
}
