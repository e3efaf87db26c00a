import type { AstroCookies } from 'astro';
import { expect, it } from 'vitest';
import { UNIT_HEADER } from '@pebble-hall/stand-ins/processor';
import { processorFor } from './desks';

const place = (unit?: string) => ({ headers: new Headers(unit ? { [UNIT_HEADER]: unit } : {}) });
const HOUSE = place();

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
  return { cookies, set, id: () => value };
}

it('every browser has a processor of its own, and finds it again', () => {
  const [one, two] = [browser(), browser()];
  const first = processorFor(one.cookies, HOUSE);
  expect(processorFor(two.cookies, HOUSE)).not.toBe(first);
  expect(processorFor(one.cookies, HOUSE)).toBe(first);
  expect(one.set).toHaveLength(1); // the cookie is set once
  expect(one.id()).toMatch(/^[0-9a-f-]{36}$/);
  expect(one.set[0]).toContain('"httpOnly":true');
  expect(one.set[0]).toContain('"sameSite":"strict"');
});

it('a cookie that is none of ours is replaced', () => {
  const odd = browser('../../etc');
  processorFor(odd.cookies, HOUSE);
  expect(odd.id()).toMatch(/^[0-9a-f-]{36}$/);
});

it('the processors longest unused are switched off, the one in use is not', () => {
  const mine = browser();
  const desk = processorFor(mine.cookies, HOUSE);
  const left = browser();
  const abandoned = processorFor(left.cookies, HOUSE);
  for (let i = 0; i < 250; i++) {
    processorFor(browser().cookies, HOUSE);
    if (i % 50 === 0) expect(processorFor(mine.cookies, HOUSE)).toBe(desk);
  }
  expect(processorFor(mine.cookies, HOUSE)).toBe(desk);
  expect(processorFor(left.cookies, HOUSE)).not.toBe(abandoned);
});

it('every place has a processor of its own: plain, but for the one that was set up already', () => {
  const { cookies } = browser();
  const lowPasses = (unit?: string) => {
    const [memory] = processorFor(cookies, place(unit)).state().memories;
    return memory && 'outputs' in memory ? memory.outputs.filter((o) => o.lowPass).length : NaN;
  };
  expect(lowPasses()).toBe(2);
  expect(lowPasses('slip-hall')).toBe(0);
  expect(processorFor(cookies, place('slip-hall'))).toBe(processorFor(cookies, place('slip-hall')));
  // a name that cannot be one is nobody's
  expect(processorFor(cookies, place('a b?'))).toBe(processorFor(cookies, HOUSE));
});
