import { UNIT_HEADER } from '@pebble-hall/stand-ins/processor';
import type { AstroCookies } from 'astro';
import { describe, expect, it } from 'vitest';
import { Desks, processorSeen, processorUsed } from './desks';

/** A browser with its cookie. */
function browser(id?: string) {
  let value = id;
  const set: string[] = [];
  const cookies = {
    get: () => (value === undefined ? undefined : { value }),
    set: (_: string, next: string, options: object) => {
      value = next;
      set.push(JSON.stringify(options));
    },
  } as unknown as AstroCookies;
  const asking = (unit?: string) => ({
    cookies,
    clientAddress: '192.0.2.1',
    request: { headers: new Headers(unit ? { [UNIT_HEADER]: unit } : {}) },
  });
  return { set, id: () => value, asking };
}
const known = () => {
  const one = browser();
  processorSeen(one.asking());
  return one;
};

describe('the processor of a browser', () => {
  it('is its own, and found again', () => {
    const [one, two] = [known(), known()];
    const first = processorUsed(one.asking());
    expect(processorUsed(two.asking())).not.toBe(first);
    expect(processorUsed(one.asking())).toBe(first);
    expect(processorSeen(one.asking())).toBe(first);
    expect(one.set).toHaveLength(1); // the cookie is set once
    expect(one.set[0]).toContain('"httpOnly":true');
    expect(one.set[0]).toContain('"sameSite":"strict"');
  });

  it.each([
    ['a made-up id', '00000000-0000-4000-8000-000000000000'],
    ['one with a made-up signature', `00000000-0000-4000-8000-000000000000.${'a'.repeat(64)}`],
    ['a path', '../../etc'],
    ['nothing', ''],
  ])('is not changed under a cookie that is %s; a true one is given instead', (_what, value) => {
    const odd = browser(value);
    expect(() => processorUsed(odd.asking())).toThrow(/Try again/);
    expect(odd.set).toHaveLength(1);
    expect(odd.id()).not.toBe(value);
    expect(processorUsed(odd.asking())).toBe(processorSeen(odd.asking()));
  });

  it('is another one in every place: plain, but for the one that was set up already', () => {
    const one = known();
    const lowPasses = (unit?: string) => {
      const [memory] = processorSeen(one.asking(unit)).state().memories;
      return memory && 'outputs' in memory ? memory.outputs.filter((o) => o.lowPass).length : NaN;
    };
    expect(lowPasses()).toBe(2);
    expect(lowPasses('slip-hall')).toBe(0);
    expect(processorUsed(one.asking('slip-hall'))).toBe(processorUsed(one.asking('slip-hall')));
    // a name that cannot be one is nobody's
    expect(processorUsed(one.asking('a b?'))).toBe(processorUsed(one.asking()));
  });
});

describe('the shelf of processors', () => {
  const HOUR = 3_600_000;
  const limits = { all: 10, each: 4, usedMs: HOUR };

  it('keeps nothing for those who only look', () => {
    const desks = new Desks({ ...limits, all: 1 });
    for (let i = 0; i < 500; i++) desks.look(`looks ${i}`, 'loft');
    expect(desks.use('works', 'loft', 'here')).toBe(desks.look('works', 'loft'));
  });

  it('gives one address its share and never switches off what is in use', () => {
    let now = 0;
    const desks = new Desks(limits, () => now);
    const mine = desks.use('me', 'loft', 'here');
    for (let i = 0; i < 4; i++) desks.use(`stranger ${i}`, 'loft', 'there');
    expect(() => desks.use('stranger 5', 'loft', 'there')).toThrow(/in use/);
    for (let i = 0; i < 5; i++) desks.use(`other ${i}`, 'loft', `elsewhere ${i}`);
    expect(() => desks.use('one more', 'loft', 'yet elsewhere')).toThrow(/in use/);
    expect(desks.look('me', 'loft')).toBe(mine);
    now = 2 * HOUR;
    expect(desks.look('me', 'loft')).toBe(mine); // used again just now
    expect(desks.use('stranger 5', 'loft', 'there')).toBeDefined();
    expect(desks.look('me', 'loft')).toBe(mine);
  });
});
