import { expect, it } from 'vitest';
import { heardFrom, listenAt } from './heardFrom';

it('what is asked for in an address is what arrives', () => {
  const two = { leftId: 'a & b', rightId: 'sub=1', alsoIds: [], spotId: 'home', band: { from: 38, to: 141 } };
  for (const asked of [two, { ...two, alsoIds: ['fill', 'delay 1'] }])
    expect(heardFrom(new URL(listenAt(asked), 'http://localhost').hash)).toEqual(asked);
});

it('what is no such thing asks for nothing', () => {
  for (const hash of [
    '',
    '#library',
    '#left=a&right=b&spot=c&from=90&to=40',
    '#left=a&right=b&spot=c&from=x&to=y',
  ])
    expect(heardFrom(hash)).toBeNull();
});
