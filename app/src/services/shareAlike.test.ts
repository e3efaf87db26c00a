import { describe, expect, it } from 'vitest';
import { shareAlike } from './shareAlike';

const made = (levelDb: number) =>
  new Map([
    [
      'left',
      { found: Float64Array.of(1, NaN, -Infinity), left: Float64Array.of(levelDb, 2), edges: [{ at: 40 }] },
    ],
    ['right', { found: Float64Array.of(4), left: Float64Array.of(5), edges: [] }],
  ]);

describe('what has not changed in an answer', () => {
  it('is the whole of it, where nothing has', () => {
    const before = made(1);
    expect(shareAlike(before, made(1))).toBe(before);
  });

  it('is each curve and each part that says the same, and no other', () => {
    const before = made(1);
    const after = shareAlike(before, made(9));
    expect(after).toEqual(made(9));
    expect(after).not.toBe(before);
    expect(after.get('right')).toBe(before.get('right'));
    expect(after.get('left')).not.toBe(before.get('left'));
    expect(after.get('left')!.found).toBe(before.get('left')!.found);
    expect(after.get('left')!.edges).toBe(before.get('left')!.edges);
    expect([...before.get('left')!.left]).toEqual([1, 2]);
  });

  it('keeps what is more, fewer, of another kind, or negative zero as it is now', () => {
    for (const [before, now] of [
      [
        [1, 2, 3],
        [1, 2],
      ],
      [[1], [1, undefined]],
      [{ a: 1 }, { a: 1, b: undefined }],
      [{ a: 1, b: 2 }, { a: 1 }],
      [Float64Array.of(1), Float32Array.of(1)],
      [Float64Array.of(0), Float64Array.of(-0)],
      [new Map([['a', 1]]), new Map([['b', 1]])],
      [null, { a: 1 }],
      [{ a: null }, { a: [] }],
    ]) {
      const shared = shareAlike(before, now);
      expect(shared).not.toBe(before);
      expect(shared).toStrictEqual(now);
    }
  });
});
