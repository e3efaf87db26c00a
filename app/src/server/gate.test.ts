import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addressesInNetwork, followPages, hostsOf } from './addresses';
import { Buckets } from './buckets';
import { refusedAt, type Asked } from './gate';

const hosts = hostsOf({ host: '127.0.0.1', port: 4173 });
const ours: Asked = { method: 'GET', url: '/mic-walk', host: '127.0.0.1:4173' };
const status = (change: Partial<Asked>) => refusedAt({ ...ours, ...change }, hosts)?.status ?? 200;
const own = { origin: 'http://127.0.0.1:4173', site: 'same-origin' };
const post = { method: 'POST', url: '/api/processor/recall' };

describe('the gate', () => {
  it.each<[string, Partial<Asked>, number]>([
    ['a page of ours', {}, 200],
    ['a page by the name of the machine itself', { host: 'LOCALHOST:4173' }, 200],
    ['a page by a name that somebody points here', { host: 'rebound.example:4173' }, 421],
    ['a page without a name', { host: undefined }, 421],
    ['a page at another port', { host: '127.0.0.1:80' }, 421],
    ['a change by our page', { ...post, ...own }, 200],
    ['a change by a foreign page', { ...post, origin: 'http://rebound.example', site: 'cross-site' }, 403],
    [
      'a change by a page at another port',
      { ...post, origin: 'http://127.0.0.1:9999', site: 'same-site' },
      403,
    ],
    ['a change by a page without an origin', { ...post, origin: 'null' }, 403],
    ['a change by nobody known', post, 403],
    [
      'a look at the processor by a foreign page',
      { url: '/api/processor', site: 'cross-site', mode: 'no-cors' },
      403,
    ],
    [
      'a link to the processor on a foreign page',
      { url: '/api/processor', site: 'cross-site', mode: 'navigate', target: 'document' },
      403,
    ],
    [
      'a link to a page of ours on a foreign page',
      { site: 'cross-site', mode: 'navigate', target: 'document' },
      200,
    ],
    [
      'a page of ours in a frame of a foreign one',
      { site: 'cross-site', mode: 'navigate', target: 'iframe' },
      403,
    ],
    [
      'a picture of ours in a foreign page',
      { url: '/mark.svg', site: 'cross-site', mode: 'no-cors', target: 'image' },
      403,
    ],
    ['a picture made to order', { url: '/_image?href=/mark.svg&w=30000' }, 404],
    ['the same by a detour', { url: '/x/../_image?href=/mark.svg' }, 404],
    ['the same, written otherwise', { url: '/%5Fimage' }, 404],
    ['an island of the framework', { url: '/_server-islands/x' }, 404],
    ['a script of ours', { url: '/_astro/page.js' }, 200],
    ['TRACE', { method: 'TRACE' }, 405],
    ['a method that is none', { method: 'BREW' }, 405],
    ['a post to a page', { method: 'POST', ...own }, 405],
    ['an endless address', { url: `/${'a'.repeat(5000)}` }, 414],
    ['an address with broken percent signs', { url: '/%zz' }, 400],
  ])('answers to %s with its status', (_what, change, expected) => {
    expect(status(change)).toBe(expected);
  });

  it('never lets a change in that did not come from a page of ours, whatever else is said', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('POST', 'PUT', 'PATCH', 'DELETE'),
        fc.webUrl().map((url) => new URL(url).origin),
        fc.constantFrom('same-origin', 'none', 'cross-site', undefined),
        (method, origin, site) => status({ method, url: '/api/follow', origin, site }) === 403,
      ),
    );
  });
});

describe('the names of this server', () => {
  it('are those of the machine, of where it listens, and those that it was told of', () => {
    const told = hostsOf({ host: '192.0.2.7', port: 80 }, 'hall.test, other.test:8080');
    for (const name of [
      'localhost',
      'localhost:80',
      '192.0.2.7',
      'hall.test',
      'hall.test:80',
      'other.test:8080',
    ])
      expect(told).toContain(name);
    expect(told).not.toContain('other.test');
    expect(hostsOf({ host: '::1', port: 4173 })).toContain('[::1]:4173');
  });

  it('has no address for a phone while it listens to its own machine only', () => {
    expect(addressesInNetwork(undefined)).toEqual([]);
    expect(addressesInNetwork('127.0.0.1')).toEqual([]);
    expect(followPages({ host: '127.0.0.2', port: 4173 })).toEqual(['http://127.0.0.2:4173/follow']);
    expect(followPages({ host: '2001:db8::7', port: 80 })).toEqual(['http://[2001:db8::7]/follow']);
  });
});

it('an address asks so often at once, and so often in the long run; another is not held up by it', () => {
  let now = 0;
  const buckets = new Buckets({ burst: 10, perSecond: 2 }, () => now);
  const taken = (who: string, times: number) =>
    Array.from({ length: times }, () => buckets.takes(who)).filter(Boolean).length;
  expect(taken('one', 50)).toBe(10);
  expect(taken('two', 5)).toBe(5);
  now += 3000;
  expect(taken('one', 50)).toBe(6);
});
