import { newPlace, USUAL_SIZE } from '@pebble-hall/core/project';
import { expect, it } from 'vitest';
import { readPlace } from './readPlace';

const room = newPlace({ name: 'R', kind: 'listening room', size: { x: 5, y: 4, z: 2.5 }, layoutId: '5.1' });
const text = (place: typeof room) =>
  readPlace(place)
    .map((l) => l.text)
    .join('\n');

it('tells size, seats, channels and layout', () => {
  expect(text(room)).toMatch(/50 m³ over 20 m²\. Sound takes 20 ms/); // 6.87 m at 343 m/s
  expect(text(room)).toMatch(/1 seat, 3 spots/);
  expect(text(room)).toMatch(/6 channels are fitted/);
  expect(text(room)).toMatch(/5\.1: every loudspeaker stands where it asks for/);
});

it('in feet', () => {
  expect(text({ ...room, lengthUnit: 'ft' })).toMatch(/1766 cu ft over 215\.3 sq ft/);
});

it('says what is off, and that nothing rings outdoors', () => {
  const off = {
    ...room,
    loudspeakers: room.loudspeakers.map((l) =>
      l.name === 'Centre' ? { ...l, position: { ...l.position, y: 3 } } : l,
    ),
  };
  expect(readPlace(off).at(-1)).toMatchObject({
    text: expect.stringMatching(/Centre is \d+° too far right/),
    attention: true,
  });
  const field = newPlace({ name: 'F', kind: 'open air', size: USUAL_SIZE['open air'], layoutId: 'none' });
  expect(text(field)).toMatch(/the ground reflects, nothing else/);
  expect(text(field)).toMatch(/No loudspeakers yet/);
  expect(text(field)).not.toMatch(/ring for/);
});
