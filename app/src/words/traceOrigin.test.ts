import { newLive, plainView, type KeptTrace, type LiveOrigin, type Project } from '@pebble-hall/core/project';
import { expect, it } from 'vitest';
import { originLines } from './traceOrigin';

const origin: LiveOrigin = {
  by: 'live',
  measurement: 'Row 4',
  input: 3,
  reference: 2,
  delayS: 0.01038,
  gainDb: -6,
  inverted: true,
  blockLength: 16_384,
  averaging: { kind: 'exponential', seconds: 2 },
  levels: 'complex',
  average: 'none',
  floor: null,
  blocks: 11.46,
  microphoneId: 'm',
  calibration: 'Siskin M1 4417',
  position: { x: 3.6, y: 1.72, z: 1.14 },
  generator: newLive([{ id: 'l', output: 1 }], 2).generator,
  device: null,
  spectrum: null,
  memory: { letter: 'B', name: 'Evening', checksum: 1, hasFilters: true },
  rigName: 'Burrow 8, simulated',
  temperatureC: 20,
};
const trace = (change: Partial<KeptTrace>): KeptTrace => ({
  id: 't',
  kind: 'transfer function',
  name: 'Row 4',
  keptAt: Date.UTC(2026, 4, 3, 18, 20),
  note: '',
  folder: '',
  tags: [],
  arrayId: 'a',
  origin,
  view: plainView(),
  ...change,
});
const project = { place: { loudspeakers: [{ id: 'l', name: 'Left' }] } } as unknown as Project;

it('tells everything known about a live trace', () => {
  expect(originLines(project, trace({}))).toEqual([
    'Measured live 2026-05-03 18:20 UTC with Burrow 8, simulated',
    'Input 3 against input 2, corrected by Siskin M1 4417',
    'Blocks of 16 k, over the last 2 s, as much as 11.5 blocks, 10.380 ms taken off, \u22126.0 dB, inverted',
    'Played: pink noise at -40 dBFS on Left',
    'Microphone at x 3.60 m, y 1.72 m, z 1.14 m; 20 °C',
    'In the chain: memory B',
  ]);
});

it('tells of a spectrum whether it is sound pressure, of a file what cannot be known', () => {
  const spectrum = { bands: 3, weighting: 'A', seconds: null, splOffsetDb: null } as const;
  const lines = originLines(
    project,
    trace({ kind: 'spectrum', origin: { ...origin, spectrum, generator: null } }),
  );
  expect(lines[2]).toBe('1/3 octave, weighting A, all since restarted, dB re full scale, not calibrated');
  expect(lines[3]).toBe('The generator was silent');
  const file = { by: 'file', fileName: 'hall.txt', columns: [], hasPhase: false, notes: [] } as const;
  expect(originLines(project, trace({ origin: { ...file, columns: [], notes: [] } }))[1]).toMatch(/no phase/);
});

it('of a pair it says what the floor tells, and how it was fitted; of blocks how they counted', () => {
  const floor = { input: 4, crossoverHz: 300, levelDb: -3.2, delayS: -0.0012 };
  const lines = originLines(project, trace({ origin: { ...origin, levels: 'coherence', floor } }));
  expect(lines.join('\n')).toMatch(
    /blocks by coherence.*below 300 Hz by the floor's input 4, raised by \u22123.2 dB and \u22121.20 ms later/,
  );
});

it('of several swept at once: how each was set, where, and through what', () => {
  const as = { gainDb: 0, delayS: 0, inverted: false, allPasses: [], highPass: null, lowPass: null };
  const lines = originLines(
    { place: {}, rig: {} } as never,
    {
      kind: 'transfer function',
      keptAt: Date.UTC(2026, 0, 2, 3, 4),
      origin: {
        by: 'together',
        parts: [
          { loudspeakerId: 'l', name: 'Left', as },
          { loudspeakerId: 's', name: 'Sub', as: { ...as, delayS: 0.0064, inverted: true } },
        ],
        spotId: 'home',
        spotName: 'Home spot',
        position: { x: 1, y: 2, z: 1.2 },
        levelDbfs: -20,
        microphoneId: 'm',
        calibration: null,
        memory: { letter: 'A', name: 'House', checksum: 1, hasFilters: false },
        rigName: 'a made-up rig',
        temperatureC: 20,
      },
    } as never,
  );
  expect(lines).toEqual([
    'Swept all at once 2026-01-02 03:04 UTC with a made-up rig, \u221220.0 dB re full scale',
    'Left: 0.00 ms',
    'Sub: 6.40 ms, inverted',
    'At Home spot: microphone at x 1.00 m, y 2.00 m, z 1.20 m; 20 °C',
    'Not corrected',
    'In the chain: memory A',
  ]);
});
