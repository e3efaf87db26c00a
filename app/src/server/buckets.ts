/** How many at once, and how many a second in the long run. */
export interface Rate {
  burst: number;
  perSecond: number;
}

/** Addresses that are remembered; the longest silent one is forgotten beyond it. */
const MOST_KEPT = 5000;

/** A leaking bucket for each who asks: so many at once, then so many a second. */
export class Buckets {
  private readonly kept = new Map<string, { left: number; at: number }>();

  constructor(
    private readonly rate: Rate,
    private readonly now: () => number = Date.now,
  ) {}

  /** Whether one more is within the rate; it is counted then. */
  takes(who: string): boolean {
    const { burst, perSecond } = this.rate;
    const at = this.now();
    const before = this.kept.get(who) ?? { left: burst, at };
    const left = Math.min(burst, before.left + ((at - before.at) / 1000) * perSecond);
    this.kept.delete(who);
    this.kept.set(who, { left: left >= 1 ? left - 1 : left, at });
    if (this.kept.size > MOST_KEPT) this.kept.delete(this.kept.keys().next().value!);
    return left >= 1;
  }
}
