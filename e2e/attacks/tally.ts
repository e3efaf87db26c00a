import { mkdirSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { join } from 'node:path';
import { seededRandom, type Random } from '@pebble-hall/core/signal';

/** Where counts are put for the table of `npm run attack`. */
const FOLDER = fileURLToPath(new URL('../../node_modules/.cache/attack/', import.meta.url));

/** Of all attacks, this share is made: a tenth of the cheap ones in `npm test`. */
export const SHARE = Number(process.env['PEBBLE_HALL_ATTACKS'] ?? 0.1);
export const SEED = Number(process.env['PEBBLE_HALL_SEED'] ?? 1);
export const times = (all: number): number => Math.max(1, Math.round(all * SHARE));

/** Counts of one kind of attack. */
export class Tally {
  tried = 0;
  /** what broke, by what was done */
  readonly broke: string[] = [];
  private readonly draw: Random;

  constructor(readonly kind: string) {
    this.draw = seededRandom(SEED + kind.length * 7919);
  }

  /** A whole number below a limit, by the seed. */
  random = (below: number): number => Math.floor(this.draw.uniform() * below);
  pick = <T>(of: readonly T[]): T => of[this.random(of.length)]!;

  attack(what: string, holds: boolean, why = ''): void {
    this.tried++;
    if (!holds) this.broke.push(`${what}${why ? `: ${why}` : ''}`.slice(0, 400));
  }

  /** Keeps the counts for the table. @returns what broke, to be none */
  told(): string[] {
    mkdirSync(FOLDER, { recursive: true });
    const { kind, tried, broke } = this;
    writeFileSync(join(FOLDER, `${kind.replace(/\W+/g, '-')}.json`), JSON.stringify({ kind, tried, broke }));
    return broke;
  }
}
