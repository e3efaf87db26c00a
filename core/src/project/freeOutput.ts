/** The first output, from 1, that feeds nothing yet. */
export function freeOutput({ loudspeakers }: { loudspeakers: readonly { output: number }[] }): number {
  const taken = new Set(loudspeakers.map((l) => l.output));
  for (let output = 1; output <= 64; output++) if (!taken.has(output)) return output;
  return 64;
}
