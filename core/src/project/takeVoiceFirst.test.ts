import { expect, it } from 'vitest';
import { firstVariant, takeVoiceFirst } from './index.js';

it('loudspeakers get gain and delay on top of what they have, in steps of the processor; others stay as they are', () => {
  const { correction } = firstVariant();
  const before = {
    ...correction,
    alignment: {
      fill: { trimDb: -3, delayMs: 2, inverted: true },
      main: { trimDb: 0, delayMs: 0, inverted: false },
    },
  };
  const after = takeVoiceFirst(
    before,
    new Map([
      ['fill', { gainDb: -1.234, delayS: 0.012346 }],
      ['delay', { gainDb: 4, delayS: 0.05 }],
    ]),
  );
  expect(after.alignment['fill']).toEqual({ trimDb: -4.2, delayMs: 14.35, inverted: true });
  expect(after.alignment['delay']).toEqual({ trimDb: 4, delayMs: 50, inverted: false });
  expect(after.alignment['main']).toEqual(before.alignment.main);
});
