/** Switching fades from one candidate to the other within this: no click, and nothing to wait for. */
export const SWITCH_S = 0.012;
const LEAD_S = 0.06;

/** @throws Error with a sentence when the output is not there, or the browser cannot choose one */
async function playOn(context: AudioContext, id: string): Promise<void> {
  if (!id) return;
  const sink = context as AudioContext & { setSinkId?: (id: string) => Promise<void> };
  if (!sink.setSinkId)
    throw new Error('this browser cannot choose an output; take the system’s own, or another browser.');
  try {
    await sink.setSinkId(id);
  } catch (error) {
    throw new Error('the output that was chosen is not there; plug it in, or choose another one.', {
      cause: error,
    });
  }
}

/**
 * Plays several candidates at once, in step, and lets one of them be heard. Switching is a short crossfade, so it is instant
 * and without a click. The context is made by the caller's click, as browsers want it.
 */
export class CandidatePlayer {
  private context: AudioContext | null = null;
  private gains: GainNode[] = [];
  private sources: AudioBufferSourceNode[] = [];
  private startedAt = 0;
  private seconds = 0;
  private heard = 0;
  private fade: GainNode | null = null;

  /** @param sinkId of the output device; the system's own when empty */
  constructor(
    private readonly rate: number,
    private readonly sinkId: string = '',
  ) {}

  /** Starts all candidates together from their beginning; `onEnd` is told when they end by themselves. */
  async play(sounds: Float32Array[][], first: number, loops: boolean, onEnd: () => void): Promise<void> {
    await this.stop();
    const context = new AudioContext({ sampleRate: this.rate, latencyHint: 'interactive' });
    this.context = context;
    try {
      await playOn(context, this.sinkId);
    } catch (error) {
      this.context = null;
      await context.close();
      throw error;
    }
    await context.resume();
    this.fade = new GainNode(context, { gain: 1 });
    this.fade.connect(context.destination);
    this.startedAt = context.currentTime + LEAD_S;
    this.heard = first;
    this.seconds = (sounds[0]?.[0]?.length ?? 0) / this.rate;
    this.gains = [];
    this.sources = sounds.map((channels, i) => {
      const buffer = new AudioBuffer({
        numberOfChannels: channels.length,
        length: channels[0]!.length,
        sampleRate: this.rate,
      });
      channels.forEach((c, k) => buffer.copyToChannel(Float32Array.from(c), k));
      const source = new AudioBufferSourceNode(context, { buffer, loop: loops });
      const gain = new GainNode(context, { gain: i === first ? 1 : 0 });
      source.connect(gain).connect(this.fade!);
      source.start(this.startedAt);
      this.gains.push(gain);
      return source;
    });
    if (this.sources[0]) this.sources[0].onended = () => this.context === context && onEnd();
  }

  /** Lets another candidate be heard. */
  hear(index: number): void {
    const { context } = this;
    this.heard = index;
    if (!context) return;
    const now = context.currentTime;
    this.gains.forEach((gain, i) => {
      gain.gain.cancelScheduledValues(now);
      gain.gain.setValueAtTime(gain.gain.value, now);
      gain.gain.linearRampToValueAtTime(i === index ? 1 : 0, now + SWITCH_S);
    });
  }

  get playing(): boolean {
    return this.context !== null;
  }

  /** Seconds into the piece. */
  position(): number {
    if (!this.context || this.seconds === 0) return 0;
    return Math.max(0, this.context.currentTime - this.startedAt) % this.seconds;
  }

  /** Fades out and lets go of the output. */
  async stop(): Promise<void> {
    const { context } = this;
    this.context = null;
    if (!context) return;
    this.fade?.gain.setTargetAtTime(0, context.currentTime, SWITCH_S / 3);
    await new Promise((resolve) => setTimeout(resolve, 1000 * SWITCH_S * 2));
    for (const source of this.sources) source.disconnect();
    this.sources = [];
    await context.close();
  }
}
