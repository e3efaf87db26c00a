import { expect, it } from 'vitest';
import { KeySteps } from './keySteps';

it('each step goes on from the one before it, though the screen lags behind', () => {
  const steps = new KeySteps(0);
  for (let i = 0; i < 10; i++) {
    steps.took(steps.now + 1);
    // what is drawn is what was stored some steps ago
    if (i > 2) steps.shows(i - 2);
  }
  expect(steps.now).toBe(10);
  for (const stored of [8, 9, 10]) steps.shows(stored);
  expect(steps.now).toBe(10);
});

it('somebody else’s change counts, an undo among them', () => {
  const steps = new KeySteps(0);
  steps.took(steps.now + 1);
  steps.shows(1);
  steps.shows(0); // undone
  expect(steps.now).toBe(0);
  steps.took(1);
  steps.shows(40); // in another tab
  expect(steps.now).toBe(40);
});

it('what never came back was not stored, and is forgotten', () => {
  let now = 0;
  const steps = new KeySteps<number>(0, Object.is, () => now);
  steps.took(1);
  expect(steps.now).toBe(1);
  now = 6000;
  expect(steps.now).toBe(0);
});
