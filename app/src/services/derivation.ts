import { isEqual } from 'es-toolkit';
import { isAbort } from '../ports/abort';
import { WorkerError } from '../workers/workerError';
import { shareAlike } from './shareAlike';

/** How a derived value stands: what was asked for, and what is known of it. */
export interface Derived<T> {
  /** null until it is there; never of anything else than what is asked for */
  value: T | null;
  /** why it cannot be had, as it was thrown */
  error: unknown;
  /** whether it is being worked out */
  busy: boolean;
  /** 0 to 1, null where it is not told */
  share: number | null;
}

export interface Job {
  signal: AbortSignal;
  onProgress: (share: number) => void;
}
export type Compute<Inputs, T> = (inputs: Inputs, job: Job) => T | Promise<T>;

export interface DerivationOptions<Inputs> {
  /** milliseconds that the inputs have to rest before it is worked out */
  restMs?: number;
  /**
   * Whether an answer to earlier inputs may stay on screen while a later one is worked out, and counts until then: the same
   * thing under a moving hand. Without it nothing is shown until the answer to the very inputs is there.
   */
  follows?: (earlier: Inputs, now: Inputs) => boolean;
  /** whether what has not changed in an answer is kept as the object that it was: for answers that are drawn under a moving hand */
  sharesParts?: boolean;
  /** told of each answer, before those who look are */
  onAnswer?: () => void;
}

const FIRST_WAIT_MS = 1500;
const MOST_WAIT_MS = 30_000;

interface Answer<Inputs, T> {
  of: Inputs;
  value: T | null;
  error: unknown;
}

const NOTHING: Derived<never> = { value: null, error: null, busy: false, share: null };

/**
 * One value derived from inputs that change, worked out in a worker or read from the store. Answers that come late are kept
 * only with what they were asked for: `shownFor` never gives the answer to one question under another.
 */
export class Derivation<Inputs, T> {
  private asked: Inputs | null = null;
  private answer: Answer<Inputs, T> | null = null;
  private running: { of: Inputs; stop: AbortController } | null = null;
  private share: number | null = null;
  /** of the worker, in a row */
  private failures = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private readonly listeners = new Set<() => void>();
  private shown: { of: Inputs | null; isRead: boolean; derived: Derived<T> } = {
    of: null,
    isRead: false,
    derived: NOTHING,
  };

  constructor(
    private readonly compute: Compute<Inputs, T>,
    private readonly options: DerivationOptions<Inputs> = {},
  ) {}

  /** Asks for the value of these inputs; null for nothing. What is under way for others is cancelled. */
  ask(inputs: Inputs | null): void {
    if (isEqual(inputs, this.asked)) return;
    this.asked = inputs;
    clearTimeout(this.timer);
    const { follows, restMs = 0 } = this.options;
    const { running } = this;
    // under a moving hand the one that runs is let go to its end, and then the newest follows
    const mayEnd = running && inputs !== null && follows?.(running.of, inputs);
    if (running && !mayEnd) {
      running.stop.abort();
      this.running = null;
    }
    if (inputs !== null && !mayEnd) {
      if (restMs > 0) this.timer = setTimeout(() => void this.run(inputs), restMs);
      else void this.run(inputs);
    }
    this.notify();
  }

  /** Cancels what is under way: nobody looks any more. */
  stop(): void {
    clearTimeout(this.timer);
    this.running?.stop.abort();
    this.running = null;
    this.asked = null;
  }

  /** What may be shown of it under these inputs. */
  shownFor(inputs: Inputs | null): Derived<T> {
    const { of, isRead, derived: before } = this.shown;
    if (isRead && of === inputs) return before;
    const now = this.derive(inputs);
    // the same object as long as it says the same: nothing is drawn again for it
    const derived = isShallowEqual(before, now) ? before : now;
    this.shown = { of: inputs, isRead: true, derived };
    return derived;
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  private derive(inputs: Inputs | null): Derived<T> {
    if (inputs === null) return NOTHING;
    const { answer } = this;
    const isExact = answer !== null && isEqual(answer.of, inputs);
    const fits = isExact || (answer !== null && (this.options.follows?.(answer.of, inputs) ?? false));
    return {
      value: fits ? answer.value : null,
      error: fits ? answer.error : null,
      busy: !isExact,
      share: isExact ? null : this.share,
    };
  }

  private async run(inputs: Inputs): Promise<void> {
    const stop = new AbortController();
    const mine = { of: inputs, stop };
    this.running = mine;
    this.share = null;
    const onProgress = (share: number) => {
      if (this.running !== mine) return;
      this.share = share;
      this.notify();
    };
    try {
      const value = await this.compute(inputs, { signal: stop.signal, onProgress });
      this.take(mine, { of: inputs, value, error: null });
    } catch (error) {
      // cancelled by hand, elsewhere: it stays so, and says so, until something else is asked for
      const told = isAbort(error)
        ? new Error('It was cancelled. It begins again with the next change.')
        : error;
      if (!stop.signal.aborted) {
        this.take(mine, { of: inputs, value: null, error: told });
        if (error instanceof WorkerError) this.runLater(inputs);
      } else if (this.running === mine) this.running = null;
    }
    // the newest of those that came while it ran
    const { asked, answer, running } = this;
    if (asked !== null && running === null && !stop.signal.aborted && !isEqual(answer?.of, asked))
      void this.run(asked);
  }

  /** A worker that could not be started, or died, is asked again by and by while somebody waits for it. */
  private runLater(inputs: Inputs): void {
    const waitMs = Math.min(MOST_WAIT_MS, FIRST_WAIT_MS * 2 ** this.failures++);
    this.timer = setTimeout(() => {
      if (this.listeners.size > 0 && isEqual(this.asked, inputs) && this.running === null)
        void this.run(inputs);
    }, waitMs);
  }

  private take(mine: { of: Inputs; stop: AbortController }, answer: Answer<Inputs, T>): void {
    if (this.running !== mine) return; // late: something else was asked for since
    this.running = null;
    this.share = null;
    const { sharesParts = false } = this.options;
    this.answer = sharesParts ? { ...answer, value: shareAlike(this.answer?.value, answer.value) } : answer;
    if (answer.error === null) this.failures = 0;
    this.options.onAnswer?.();
    this.notify();
  }

  private notify(): void {
    this.shown.isRead = false;
    for (const listener of this.listeners) listener();
  }
}

const isShallowEqual = <T>(a: Derived<T>, b: Derived<T>): boolean =>
  a.value === b.value && a.error === b.error && a.busy === b.busy && a.share === b.share;
