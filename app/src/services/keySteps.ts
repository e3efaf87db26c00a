/** A value that was asked for, and when, ms. */
interface Asked<T> {
  value: T;
  at: number;
}

/** What was asked for so long ago and never came back was not stored. */
const FORGOTTEN_MS = 5000;
const MOST = 200;

/**
 * Steps of a hand that come faster than they are stored and drawn: each goes on from the one before it, not from what the screen
 * shows. What comes back from the store in their order is their echo; anything else was changed by somebody else, and counts.
 */
export class KeySteps<T> {
  private asked: Asked<T>[] = [];
  private seen: T;

  constructor(
    shown: T,
    private readonly isSame: (a: T, b: T) => boolean = Object.is,
    private readonly clock: () => number = () => performance.now(),
  ) {
    this.seen = shown;
  }

  /** The screen shows this now. */
  shows(value: T): void {
    if (this.isSame(value, this.seen)) return;
    this.seen = value;
    const echo = this.asked.findIndex((a) => this.isSame(a.value, value));
    this.asked = echo < 0 ? [] : this.asked.slice(echo + 1);
  }

  /** From where the next step goes. */
  get now(): T {
    const last = this.asked.at(-1);
    return last && this.clock() - last.at < FORGOTTEN_MS ? last.value : this.seen;
  }

  /** A step was taken. */
  took(value: T): T {
    this.asked = [...this.asked.slice(1 - MOST), { value, at: this.clock() }];
    return value;
  }
}
