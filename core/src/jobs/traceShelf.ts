import QuickLRU from 'quick-lru';
import { sumPathsInTime } from '../path/index.js';
import { subPath } from '../processing/index.js';
import { gainOfDb, type ImpulseResponse } from '../signal/index.js';
import { sourceKey, type MicrophoneError, type TraceSource } from './traceSource.js';

/** Gives a stored response by its id. */
export type LoadImpulse = (arrayId: string) => Promise<ImpulseResponse>;

/** A response as it is to be seen, still with what its microphone adds. */
export interface ShelvedTrace {
  impulse: ImpulseResponse;
  calibration: MicrophoneError | null;
}

/** So many are kept: 256 KB each as they are stored, some 20 more for what is worked out of each. */
const MOST_KEPT = 400;

/**
 * Traces that are at hand, loaded when they are first asked for, with what is worked out of each; the longest unused go
 * when there are too many. Whoever asks for one that is just being loaded waits for that one.
 */
export class TraceShelf<Seen> {
  private readonly kept: QuickLRU<string, Promise<Seen>>;

  constructor(
    private readonly load: LoadImpulse,
    private readonly see: (trace: ShelvedTrace) => Seen,
    most = MOST_KEPT,
  ) {
    this.kept = new QuickLRU({ maxSize: most });
  }

  /** @throws what loading throws; it is tried again at the next call */
  get(source: TraceSource): Promise<Seen> {
    const key = sourceKey(source);
    const known = this.kept.get(key);
    if (known) return known;
    const seen = this.shelve(source).then(this.see);
    this.kept.set(key, seen);
    seen.catch(() => this.kept.delete(key));
    return seen;
  }

  all(sources: TraceSource[]): Promise<Seen[]> {
    return Promise.all(sources.map((source) => this.get(source)));
  }

  private async shelve(source: TraceSource): Promise<ShelvedTrace> {
    if (!('parts' in source)) {
      const { samples, rate, zero } = await this.load(source.arrayId);
      const gain = gainOfDb(source.gainDb);
      return {
        impulse: { samples: gain === 1 ? samples : samples.map((v) => gain * v), rate, zero },
        calibration: source.calibration,
      };
    }
    const traces = await Promise.all(source.parts.map(({ trace }) => this.shelve(trace)));
    const sum = sumPathsInTime(
      traces.map(({ impulse }, i) => ({
        response: impulse,
        path: subPath(source.parts[i]!.setting, impulse.rate),
      })),
    );
    return {
      impulse: { ...sum, samples: Float32Array.from(sum.samples) },
      calibration: traces[0]!.calibration,
    };
  }
}
