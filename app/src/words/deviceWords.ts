import type { ChannelsApart, GainStep } from '@pebble-hall/core/live';
import type { ElectronicsBench } from '@pebble-hall/core/project';
import { formatHz, signedDb } from '../charts/chartMath';
import type { LiveSentence } from './liveWords';

/** Knobs of a stand-in that name a trace; where a fader or a pan stands says nothing of its curve. */
const TELLING = ['low', 'mid', 'sweep', 'high', 'trim'];
const MOST_TOLD = 4;

/** How knobs stand that were turned, for the name of a trace: ": 1 low +15". Empty for none. */
export function knobsText(knobs: Record<string, number>): string {
  const told = Object.entries(knobs).flatMap(([key, value]) => {
    const [channel, name] = key.split('.');
    if (!name || !TELLING.includes(name) || (name !== 'sweep' && value === 0)) return [];
    return [
      `${channel} ${name} ${name === 'sweep' ? formatHz(value) : signedDb(value, value % 1 === 0 ? 0 : 1)}`,
    ];
  });
  return told.length === 0 ? '' : `: ${told.slice(0, MOST_TOLD).join(', ')}`;
}

const channel = (index: number) => `Channel ${'AB'[index]}`;
const db = (value: number) => `${value.toFixed(1)} dB`;

/** What there is to turn, as a sentence. @param inputs that the channels come back on */
export function gainSentence(step: GainStep, inputs: readonly number[]): string {
  const name = channel(step.channel);
  switch (step.kind) {
    case 'nothing':
      return `Nothing comes back on input ${inputs[step.channel]}, which is ${name}: check its cable, and that its fader is up.`;
    case 'clipped':
      return `Input ${inputs[step.channel]} (${name}) is clipped: lower the device's output by ${db(step.byDb)} or more.`;
    case 'near its end':
      return `${name} comes near the end of its input: lower it by ${db(step.byDb)}.`;
    case 'weak':
      return `${name} is weak: raise it by about ${db(step.byDb)}, so that noise does not count.`;
    case 'distorts':
      return `In ${name} what does not belong to the signal is only ${db(-step.restDb)} below it: the device is overloaded or noisy. Lower what goes in.`;
    case 'apart':
      return `${name} is ${step.byDb.toFixed(2)} dB lower than the other: turn it up by that before they are compared.`;
  }
}

/** How two channels compare, held against a tolerance. */
export function apartSentence(
  apart: ChannelsApart,
  { toleranceDb, toleranceDeg }: Pick<ElectronicsBench, 'toleranceDb' | 'toleranceDeg'>,
): LiveSentence {
  const isLevel = Math.abs(apart.mostDb) > toleranceDb;
  const isPhase = Math.abs(apart.mostDeg) > toleranceDeg;
  const mean = `Channel B lies ${Math.abs(apart.meanDb).toFixed(2)} dB ${apart.meanDb < 0 ? 'below' : 'over'} channel A`;
  if (!isLevel && !isPhase)
    return {
      text: `${mean}; but for that they are alike within ${toleranceDb} dB and ${toleranceDeg}° from 25 Hz to 18 kHz.`,
      attention: false,
    };
  const found = [
    ...(isLevel ? [`${signedDb(apart.mostDb, 2)} dB at ${formatHz(apart.mostDbAt)}`] : []),
    ...(isPhase ? [`${signedDb(apart.mostDeg, 0)}° at ${formatHz(apart.mostDegAt)}`] : []),
  ];
  return {
    text: `${mean}; but for that it is off by ${found.join(' and ')}, outside the tolerance.`,
    attention: true,
  };
}
