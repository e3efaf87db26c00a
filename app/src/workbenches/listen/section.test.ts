import { describe, expect, it } from 'vitest';
import { firstSection, movedSection } from './section';

describe('section of a piece', () => {
  it('is the whole of a short one, and the first minute of a long one', () => {
    expect(firstSection(9)).toEqual({ fromS: 0, toS: 9 });
    expect(firstSection(240)).toEqual({ fromS: 0, toS: 60 });
  });

  it.each([
    // moved, of a piece of 240 s, from a section of 10 to 40 s
    [{ fromS: 20 }, { fromS: 20, toS: 40 }],
    [{ toS: 50 }, { fromS: 10, toS: 50 }],
    [{ toS: 200 }, { fromS: 140, toS: 200 }], // a minute at most: the beginning follows
    [{ fromS: 60 }, { fromS: 60, toS: 60.5 }], // half a second at least: the end follows
    [{ toS: 5 }, { fromS: 4.5, toS: 5 }],
    [{ fromS: -3 }, { fromS: 0, toS: 40 }],
    [{ toS: 999 }, { fromS: 180, toS: 240 }],
    [{ fromS: 999 }, { fromS: 239.5, toS: 240 }],
    [{ toS: 0 }, { fromS: 0, toS: 0.5 }],
  ])('moved by %j', (next, expected) => {
    expect(movedSection({ fromS: 10, toS: 40 }, next, 240)).toEqual(expected);
  });
});
