/**
 * Counts the times that sound was lost on the way from the audio thread. A block carries how often the thread has lost a
 * quantum so far; a block that is missing itself shows as a gap. Both tell of the same losses, so the larger counts.
 * @param blockFrames frames of a block
 * @param startFrame of the first one
 */
export function lossCounter(blockFrames: number, startFrame: number) {
  let gaps = 0;
  let lost = 0;
  let next = startFrame;
  return {
    /** @param missed by the audio thread since it began */
    add({ fromFrame, missed }: { fromFrame: number; missed: number }): void {
      if (fromFrame !== next) gaps++;
      next = fromFrame + blockFrames;
      lost = missed;
    },
    count: () => Math.max(gaps, lost),
  };
}
