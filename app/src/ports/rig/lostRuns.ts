/** Samples that are exactly zero on every channel for this long, within sound, were lost on the way. */
const LOST_RUN = 96;

/** Times that all channels fell to exactly zero together within sound: blocks that the system did not deliver. */
export function lostRuns(channels: Float32Array[]): number {
  const length = channels[0]?.length ?? 0;
  let runs = 0;
  let run = 0;
  let begun = false;
  for (let i = 0; i < length; i++) {
    if (channels.every((c) => c[i] === 0)) run++;
    else {
      if (begun && run >= LOST_RUN) runs++;
      begun = true;
      run = 0;
    }
  }
  return runs;
}
