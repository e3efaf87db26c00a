/** The last seconds of several inputs, sample by sample; what was lost on the way makes them begin anew. */
export class History {
  private readonly kept: Float32Array[];
  private held = 0;
  private end = 0;
  private next: number | null = null;

  /** @param length samples of each that are kept */
  constructor(
    count: number,
    readonly length: number,
  ) {
    this.kept = Array.from({ length: count }, () => new Float32Array(length));
  }

  /** @param at number of the first sample since the session began */
  push(at: number, channels: readonly Float32Array[]): void {
    if (this.next !== null && at !== this.next) this.held = 0;
    const size = channels[0]?.length ?? 0;
    this.next = at + size;
    const from = Math.max(0, size - this.length);
    channels.forEach((channel, c) => {
      const into = this.kept[c]!;
      const first = Math.min(size - from, this.length - this.end);
      into.set(channel.subarray(from, from + first), this.end);
      into.set(channel.subarray(from + first), 0);
    });
    this.end = (this.end + size - from) % this.length;
    this.held = Math.min(this.length, this.held + size);
  }

  /** The last samples of one of them, oldest first: as many as there are, `most` at the most. */
  last(channel: number, most = this.length): Float32Array {
    const count = Math.min(most, this.held);
    const out = new Float32Array(count);
    const from = (this.end - count + this.length) % this.length;
    const first = Math.min(count, this.length - from);
    out.set(this.kept[channel]!.subarray(from, from + first));
    out.set(this.kept[channel]!.subarray(0, count - first), first);
    return out;
  }
}
