import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { meantOnly } from './meantOnly';

type State = Record<string, unknown>;
/** A change that is made with what a screen showed, upon what is stored by now. */
const after = <T>(seen: T, stored: T, change: (now: T) => T): T =>
  meantOnly({ seen, meant: change(seen), stored, made: change(stored) });

describe('a change keeps to what it means', () => {
  const place = () => ({
    name: 'Hall',
    spots: [
      { id: 'a', position: { x: 1, y: 2 } },
      { id: 'b', position: { x: 3, y: 4 } },
    ],
    spans: { left: { from: 50, to: 9000 } } as State,
    splay: [1, 2, 3],
  });

  it('leaves alone what was only copied along from the screen', () => {
    const seen = place();
    const shown = seen.spots[0]!;
    const stored = {
      ...place(),
      name: 'Great hall',
      spots: [
        { id: 'a', position: { x: 1, y: 7 } },
        { id: 'c', position: { x: 0, y: 0 } },
      ],
      spans: { left: { from: 50, to: 9000 }, right: { from: 60, to: 8000 } },
      splay: [1, 2, 5],
    };
    const next = after(seen, stored, (now) => ({
      ...now,
      spots: seen.spots.map((s) => (s.id === 'a' ? { ...shown, position: { ...shown.position, x: 9 } } : s)),
      spans: { ...seen.spans, centre: { from: 70, to: 7000 } },
      splay: [4, ...seen.splay.slice(1)],
    }));
    expect(next).toEqual({
      name: 'Great hall',
      // b was taken out by somebody else, and is not put back; c was added
      spots: [
        { id: 'a', position: { x: 9, y: 7 } },
        { id: 'c', position: { x: 0, y: 0 } },
      ],
      spans: {
        left: { from: 50, to: 9000 },
        right: { from: 60, to: 8000 },
        centre: { from: 70, to: 7000 },
      },
      splay: [4, 2, 5],
    });
  });

  it('goes on from what is stored where it is a step from there', () => {
    const seen = { trim: { db: 1, delay: 0 } };
    const stored = { trim: { db: 5, delay: 3 } };
    expect(after(seen, stored, ({ trim }) => ({ trim: { ...trim, db: trim.db + 1 } }))).toEqual({
      trim: { db: 6, delay: 3 },
    });
  });

  it('takes out what it takes out, and keeps a new order', () => {
    const seen = place();
    const stored = { ...place(), spots: [...place().spots, { id: 'c', position: { x: 5, y: 5 } }] };
    expect(
      after(seen, stored, (now) => ({ ...now, spots: now.spots.filter((s) => s.id !== 'a') })).spots,
    ).toEqual(stored.spots.slice(1));
    const ids = after(seen, stored, (now) => ({ ...now, spots: seen.spots.toReversed() })).spots.map(
      (s) => s.id,
    );
    expect(ids.filter((id) => id !== 'c')).toEqual(['b', 'a']);
    expect(ids).toContain('c');
    const { spans } = after({ ...seen }, { ...stored, spans: { left: { from: 1, to: 2 } } }, (now) => ({
      ...now,
      spans: {},
    }));
    expect(spans).toEqual({});
  });

  it('adds what it adds once, though it is asked twice and names it anew each time', () => {
    let count = 0;
    const seen = { rounds: [{ id: 'r' }] };
    const stored = { rounds: [{ id: 'r' }, { id: 's' }] };
    const next = after(seen, stored, ({ rounds }) => ({ rounds: [...rounds, { id: `new-${++count}` }] }));
    expect(next.rounds.map((r) => r.id)).toEqual(['r', 's', 'new-2']);
  });

  it('loses neither of two edits of different things, however whole the states are that they write', () => {
    const leaf = fc.integer({ min: 0, max: 9 });
    const thing = fc.dictionary(fc.constantFrom('p', 'q', 'r', 's'), leaf, { minKeys: 2 });
    const state = fc.record({
      one: thing,
      two: fc.record({ inner: thing, list: fc.array(leaf, { minLength: 3, maxLength: 3 }) }),
      things: fc
        .uniqueArray(fc.constantFrom('a', 'b', 'c', 'd'), { minLength: 2 })
        .map((ids) => ids.map((id) => ({ id, value: 0, more: { deep: 0 } }))),
    });
    /** every place where something can be edited */
    const paths = (of: unknown, at: (string | number)[] = []): (string | number)[][] =>
      typeof of === 'object' && of !== null
        ? Object.keys(of).flatMap((k) =>
            k === 'id' ? [] : paths((of as State)[k], [...at, Array.isArray(of) ? Number(k) : k]),
          )
        : [at];
    const put = (of: unknown, [key, ...rest]: (string | number)[], value: unknown): unknown =>
      key === undefined
        ? value
        : Array.isArray(of)
          ? of.map((v, i) => (i === key ? put(v, rest, value) : (v as unknown)))
          : { ...(of as State), [key]: put((of as State)[key], rest, value) };
    const read = (of: unknown, path: (string | number)[]) =>
      path.reduce<unknown>((at, key) => (at as State)[key], of);
    fc.assert(
      fc.property(state, fc.nat(), fc.nat(), (seen, a, b) => {
        const all = paths(seen);
        const [mine, others] = [all[a % all.length]!, all[b % all.length]!];
        fc.pre(mine.join() !== others.join());
        const stored = put(seen, others, 77) as typeof seen;
        // the whole state as it was seen is written, with one thing changed
        const next = after(seen, stored, () => put(seen, mine, 88) as typeof seen);
        return read(next, mine) === 88 && read(next, others) === 77;
      }),
      { numRuns: 1000 },
    );
  });
});
