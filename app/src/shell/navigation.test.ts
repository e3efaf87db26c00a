import { describe, expect, it } from 'vitest';
import { linkToFollow } from './navigation';

const link = (over: { target?: string; download?: boolean } = {}) => ({
  href: 'http://localhost/correct',
  target: over.target ?? '',
  hasAttribute: (name: string) => name === 'download' && over.download === true,
});
const click = (found: object | null, over: Partial<MouseEvent> = {}) =>
  linkToFollow({
    target: { closest: () => found } as unknown as EventTarget,
    defaultPrevented: false,
    button: 0,
    ctrlKey: false,
    metaKey: false,
    shiftKey: false,
    altKey: false,
    ...over,
  });

describe('a click that leaves the page', () => {
  it('is one on a link, with the first button and nothing held', () => {
    const here = link();
    expect(click(here)).toBe(here);
    expect(click(null)).toBeNull();
    expect(click(here, { target: null })).toBeNull();
  });

  it('is not one that opens another tab, saves a file, or was dealt with', () => {
    for (const over of [
      { ctrlKey: true },
      { metaKey: true },
      { shiftKey: true },
      { altKey: true },
      { button: 1 },
    ])
      expect(click(link(), over), JSON.stringify(over)).toBeNull();
    expect(click(link({ target: '_blank' }))).toBeNull();
    expect(click(link({ download: true }))).toBeNull();
    expect(click(link(), { defaultPrevented: true })).toBeNull();
    expect(click(link({ target: '_self' }))).not.toBeNull();
  });
});
