import { isEqual } from 'es-toolkit';

/** Results by what they were made from, compared by its contents; the longest unused goes when there are too many. */
export class AlikeCache<Inputs, T> {
  private kept: { of: Inputs; result: Promise<T> }[] = [];

  constructor(
    private readonly most: number,
    private readonly make: (inputs: Inputs) => Promise<T>,
  ) {}

  /** What was made of these inputs, or is being made; what failed is made again. */
  get(inputs: Inputs): Promise<T> {
    const known = this.kept.find((k) => isEqual(k.of, inputs));
    const entry = known ?? { of: inputs, result: this.make(inputs) };
    this.kept = [entry, ...this.kept.filter((k) => k !== entry)].slice(0, this.most);
    if (!known) entry.result.catch(() => (this.kept = this.kept.filter((k) => k !== entry)));
    return entry.result;
  }
}
