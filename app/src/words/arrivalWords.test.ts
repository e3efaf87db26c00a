import { expect, it } from 'vitest';
import { arrivalSentence, directionWords, lateSentence, treatedSentence } from './arrivalWords';

it('tells where it comes from, for one who looks at the source', () => {
  // looking along -x, at a source ahead: what travels along +x comes from ahead
  expect(directionWords({ x: 1, y: 0, z: 0 }, Math.PI)).toBe('from ahead');
  expect(directionWords({ x: -1, y: 0, z: 0 }, Math.PI)).toBe('from behind');
  // with -x ahead the left hand points along -y; what comes from there travels along +y
  expect(directionWords({ x: 0, y: 1, z: 0 }, Math.PI)).toBe('from 90\u00b0 to the left');
  expect(directionWords({ x: 0, y: -1, z: 0 }, Math.PI)).toBe('from 90\u00b0 to the right');
  expect(directionWords({ x: 0, y: 0, z: -1 }, 0)).toBe('90\u00b0 up');
  expect(directionWords({ x: Math.SQRT1_2, y: 0, z: Math.SQRT1_2 }, Math.PI)).toBe(
    'from ahead, 45\u00b0 down',
  );
});

it('tells the faces in order', () => {
  const told = { laterS: 0.0584, db: -5.1, direction: 'from behind', faces: ['Doors'] };
  expect(arrivalSentence(told)).toBe('58.4 ms after it and at \u22125.1 dB, from behind: off Doors.');
  expect(arrivalSentence({ ...told, faces: ['Floor', 'Doors'] })).toContain('off Floor, then Doors');
  expect(arrivalSentence({ ...told, faces: [] })).toBe('The direct sound, from behind.');
  expect(lateSentence(null)).toMatch(/50 ms/);
  expect(lateSentence(told)).toContain('58.4 ms');
});

it('what treating a surface does to an arrival', () => {
  expect(treatedSentence('Rear wall', 0.7, -4.96, -10.2)).toBe(
    'Swallowing 70 % Rear wall would take it from −5.0 dB to −10.2 dB.',
  );
  expect(treatedSentence('Drapes', 0.7, -5, -5.01)).toBe('Drapes swallows most of it already.');
});
