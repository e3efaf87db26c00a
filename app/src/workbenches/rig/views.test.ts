import type { Project } from '@pebble-hall/core/project';
import { describe, expect, it } from 'vitest';
import { netLoftProject } from '../../../../demo/netLoftProject';
import { evidenceOf, VIEWS } from './views';

const project = netLoftProject();
const withRig = (rig: Partial<Project['rig']>): Project => ({ ...project, rig: { ...project.rig, ...rig } });

describe('what each part of the Rig has come to', () => {
  it('is a word or two for every part, of a project in which nothing was done', () => {
    for (const view of VIEWS) expect(evidenceOf(project, view)).toMatch(/^[\w ]{4,18}$/);
    expect(evidenceOf(project, 'Connect')).toBe('simulated');
    expect(evidenceOf(project, 'Channels')).toBe('0 of 7 checked');
    expect(evidenceOf(project, 'Distances')).toBe('from the plan');
    expect(evidenceOf(project, 'Level')).toBe('relative dB');
  });

  it('real devices have to be chosen', () => {
    expect(evidenceOf(withRig({ kind: 'web audio', device: null }), 'Connect')).toBe('choose devices');
  });

  it('a microphone with its file, and without', () => {
    const [microphone] = project.rig.microphones;
    const having = (calibrationId: string | null) =>
      withRig({ microphones: [{ ...microphone!, calibrationId }], microphoneId: microphone!.id });
    expect(evidenceOf(having('any'), 'Microphones')).toBe('with file');
    expect(evidenceOf(having(null), 'Microphones')).toBe('no file');
  });

  it('a level that was calibrated, and one whose gain has been changed since', () => {
    const [microphone] = project.rig.microphones;
    const level = {
      takenAt: 1,
      nominalDb: 94,
      readDb: -26,
      gainDb: microphone!.gainDb,
      rigName: '',
      swingDb: 0,
      frequency: 1000,
    };
    const taken = (change: object) =>
      evidenceOf(
        withRig({
          microphones: [{ ...microphone!, levels: [{ ...level, ...change }] } as never],
          microphoneId: microphone!.id,
        }),
        'Level',
      );
    expect(taken({ gainDb: microphone!.gainDb + 12 })).toBe('calibrate again');
  });

  it('distances count however they came to be known', () => {
    const distance = { a: 'left', b: 'home', typedM: null, heardM: null, adjustedM: null };
    const distances = [
      { ...distance, typedM: 3.1 },
      { ...distance, a: 'right', heardM: 3.2 },
      { ...distance, a: 'centre' },
    ];
    expect(evidenceOf(withRig({ distances }), 'Distances')).toBe('2 known');
  });
});
