import { plainOutput } from '@pebble-hall/core/processing';
import { houseMemory, LEFT_OVER, Processor } from '@pebble-hall/stand-ins/processor';
import { expect, it } from 'vitest';
import { readSettings } from './readSettings';

const named = (output: number) => `Ch ${output}`;

it('has nothing to say of plain outputs', () => {
  expect(readSettings([plainOutput(), plainOutput()], named)).toEqual({ addUp: [], stay: [], replaced: [] });
});

it('tells what adds up from what stays and what is replaced', () => {
  const processor = new Processor(houseMemory());
  processor.set(LEFT_OVER);
  const { outputs } = processor.read('A').summary;
  outputs[2] = { ...outputs[2]!, taps: 8192, muted: true };
  outputs[7] = { ...outputs[7]!, bassFeed: { gainDb: 10, lowPass: null } };
  const read = readSettings(outputs, named);
  expect(read.addUp).toEqual([
    'Ch 1 \u22123 dB',
    'Ch 3 muted',
    'Ch 4 +2.5 dB',
    'Ch 7 6.5 ms, polarity inverted',
  ]);
  expect(read.stay).toEqual([
    'Ch 6 low-pass 110 Hz, Linkwitz-Riley 24 dB per octave',
    'Ch 7 low-pass 110 Hz, Linkwitz-Riley 24 dB per octave',
  ]);
  expect(read.replaced).toEqual([
    'Ch 3 filter of 8192 taps',
    'Ch 8 bass to the subwoofers, +10.0 dB, low-pass none',
  ]);
});
