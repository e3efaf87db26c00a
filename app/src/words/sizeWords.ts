const STEPS = ['KB', 'MB', 'GB'];

/** Bytes for people: three figures at most. */
export function sizeWords(bytes: number): string {
  let value = bytes / 1000;
  let step = 0;
  while (value >= 1000 && step < STEPS.length - 1) {
    value /= 1000;
    step++;
  }
  return `${value >= 10 || value === 0 ? Math.round(value) : value.toFixed(1)} ${STEPS[step]!}`;
}
