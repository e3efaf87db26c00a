import type { AstroCookies } from 'astro';
import { expect, it } from 'vitest';
import { processorFor } from './desks';

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
  const first = processorFor(one.cookies);
  expect(processorFor(two.cookies)).not.toBe(first);
  expect(processorFor(one.cookies)).toBe(first);
  expect(one.set).toHaveLength(1); // the cookie is set once
  expect(one.id()).toMatch(/^[0-9a-f-]{36}$/);
  expect(one.set[0]).toContain('"httpOnly":true');
  expect(one.set[0]).toContain('"sameSite":"strict"');
});

it('a cookie that is none of ours is replaced', () => {
  const odd = browser('../../etc');
  processorFor(odd.cookies);
  expect(odd.id()).toMatch(/^[0-9a-f-]{36}$/);
});

it('the processors longest unused are switched off, the one in use is not', () => {
  const mine = browser();
  const desk = processorFor(mine.cookies);
  const left = browser();
  const abandoned = processorFor(left.cookies);
  for (let i = 0; i < 250; i++) {
    processorFor(browser().cookies);
    if (i % 50 === 0) expect(processorFor(mine.cookies)).toBe(desk);
  }
  expect(processorFor(mine.cookies)).toBe(desk);
  expect(processorFor(left.cookies)).not.toBe(abandoned);
});
