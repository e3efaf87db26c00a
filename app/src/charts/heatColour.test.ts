import { expect, it } from 'vitest';
import { heatColour } from './heatColour';

it.each([false, true])(
  'goes from the ground to the loudest colour, each step apart from the last (dark: %s)',
  (dark) => {
    const steps = Array.from({ length: 11 }, (_, i) => heatColour(i / 10, dark));
    for (let i = 1; i < steps.length; i++) {
      const apart = Math.hypot(...steps[i]!.map((v, c) => v - steps[i - 1]![c]!));
      expect(apart).toBeGreaterThan(10);
    }
    expect(heatColour(-1, dark)).toEqual(heatColour(0, dark));
    expect(heatColour(2, dark)).toEqual(heatColour(1, dark));
  },
);
