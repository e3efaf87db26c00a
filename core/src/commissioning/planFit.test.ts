import { expect, it } from 'vitest';
import { findMisfits, indistinguishable, type PlannedChannel } from './planFit.js';

const full = { from: 60, to: 16000 };
const low = { from: 28, to: 110 };
const channel = (id: string, metres: number, options: Partial<PlannedChannel> = {}): PlannedChannel => {
  const travelS = metres / 343;
  return { id, role: 'full range', travelS, delayS: 0, arrivalS: travelS + 0.00125, band: full, ...options };
};
const room = () => [
  channel('left', 2.6),
  channel('right', 2.7),
  channel('centre', 2.2),
  channel('rear', 1.4),
  channel('sub', 3.1, { role: 'subwoofer', band: low, arrivalS: 3.1 / 343 + 0.003 }),
];

it('finds nothing where all fits, whatever latency all share', () => {
  expect(findMisfits(room())).toEqual([]);
  expect(findMisfits(room().map((c) => ({ ...c, arrivalS: c.arrivalS! + 0.0321 })))).toEqual([]);
});

it('takes known delays off', () => {
  const delayed = room().map((c) =>
    c.id === 'rear' ? { ...c, arrivalS: c.arrivalS! + 0.006, delayS: 0.006 } : c,
  );
  expect(findMisfits(delayed)).toEqual([]);
  expect(findMisfits(delayed.map((c) => ({ ...c, delayS: 0 }))).map((m) => m.id)).toEqual(['rear']);
});

it('names two swapped channels, and each as what the other could be', () => {
  const [left, right, centre, rear, sub] = room() as [
    PlannedChannel,
    PlannedChannel,
    PlannedChannel,
    PlannedChannel,
    PlannedChannel,
  ];
  const swapped = [
    left,
    right,
    { ...centre, arrivalS: rear.arrivalS },
    { ...rear, arrivalS: centre.arrivalS },
    sub,
  ];
  const found = findMisfits(swapped);
  expect(found.map(({ id, couldBe }) => [id, couldBe])).toEqual([
    ['centre', ['rear']],
    ['rear', ['centre']],
  ]);
  expect(found[0]!.lateS).toBeCloseTo((1.4 - 2.2) / 343, 6);
});

it('knows a subwoofer by its band, also with too few channels to judge times', () => {
  const [left, , , , sub] = room() as [
    PlannedChannel,
    PlannedChannel,
    PlannedChannel,
    PlannedChannel,
    PlannedChannel,
  ];
  const swapped = [
    { ...left, band: low },
    { ...sub, band: full },
  ];
  expect(findMisfits(swapped).map(({ id, wrongBand, couldBe }) => [id, wrongBand, couldBe])).toEqual([
    ['left', true, ['sub']],
    ['sub', true, ['left']],
  ]);
});

it('leaves out what did not arrive', () => {
  expect(
    findMisfits(room().map((c) => (c.id === 'left' ? { ...c, arrivalS: null, band: null } : c))),
  ).toEqual([]);
  expect(findMisfits([])).toEqual([]);
});

it('says which pairs cannot be told apart from here', () => {
  expect(indistinguishable(room())).toEqual([['left', 'right']]);
});
