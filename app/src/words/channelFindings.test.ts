import { channelFindings, untellable, type LevelCheck, type Project } from '@pebble-hall/core/project';
import { speedOfSound } from '@pebble-hall/core/room';
import { describe, expect, it } from 'vitest';
import { netLoftProject } from '../../../demo/netLoftProject';
import { findingSentence } from './channelFindings';
import { stonesOf } from './workbenchStatus';

const loft = netLoftProject();
const home = loft.place.spots[0]!.position;
const LATENCY_S = 0.00125;

/** Checks of all channels as they are when all is well, with changes to some. */
function checked(
  changes: Record<string, Partial<LevelCheck>> = {},
  place: Partial<Project['place']> = {},
): Project {
  const checks = Object.fromEntries(
    loft.place.loudspeakers.map((l): [string, LevelCheck] => {
      const { x, y, z } = l.position;
      const travelS = Math.hypot(x - home.x, y - home.y, z - home.z) / speedOfSound(loft.place.temperatureC);
      const band = l.role === 'subwoofer' ? { from: 31, to: 125 } : { from: 50, to: 16000 };
      const check: LevelCheck = {
        takenAt: 1,
        levelDbfs: loft.rig.levelDbfs,
        verdict: { state: 'good', reasons: [], snrDb: 40, band },
        margins: [],
        arrivalS: travelS + LATENCY_S,
        reversed: false,
        certainty: 2,
        distortionDb: -45,
        delayS: 0,
        traceId: null,
        ...changes[l.id],
      };
      return [l.id, check];
    }),
  );
  return { ...loft, place: { ...loft.place, ...place }, rig: { ...loft.rig, checks } };
}
const sentencesOf = (project: Project, id: string) => channelFindings(project).get(id)!.map(findingSentence);
const stone = (project: Project) => stonesOf(project).find((s) => s.name === 'Rig')!;
const silent = {
  state: 'failed',
  reasons: [{ kind: 'silent', snrDb: 2 }],
  snrDb: 2,
  band: null,
} as const;

it('finds nothing where all is well, and nothing of what was not checked', () => {
  for (const [id, found] of channelFindings(checked())) expect(found, id).toEqual([]);
  for (const found of channelFindings(loft).values()) expect(found).toEqual([]);
  expect(stone(checked())).toMatchObject({ state: 'done', evidence: 'ready, 40 dB' });
});

describe('one line each', () => {
  it('reversed polarity, and polarity that cannot be told', () => {
    expect(sentencesOf(checked({ right: { reversed: true } }), 'right')).toEqual([
      'polarity is inverted: exchange + and \u2212 at the loudspeaker or its plug',
    ]);
    const unclear = checked({ right: { reversed: true, certainty: 1.05 } });
    expect(sentencesOf(unclear, 'right')).toEqual(['its polarity cannot be told from here']);
    expect(stone(unclear).state).toBe('done');
    expect(stone(checked({ right: { reversed: true } }))).toMatchObject({
      state: 'look again',
      evidence: '1 channel: look',
    });
  });

  it('distortion above the limit of its kind, but not when it was too soft to tell', () => {
    expect(sentencesOf(checked({ centre: { distortionDb: -20 } }), 'centre')).toEqual([
      'distorts by 10 % (5 % is the limit): lower the level, then listen for a buzz',
    ]);
    expect(sentencesOf(checked({ 'sub-1': { distortionDb: -22 } }), 'sub-1')).toEqual([]);
    const verdict = { state: 'doubtful', reasons: [], snrDb: 12, band: { from: 50, to: 16000 } } as const;
    expect(
      sentencesOf(checked({ centre: { distortionDb: -20, verdict: { ...verdict, reasons: [] } } }), 'centre'),
    ).toEqual([]);
  });

  it('two exchanged channels, each as the other', () => {
    const project = checked();
    const { centre, 'surround-right': rear } = project.rig.checks as Record<string, LevelCheck>;
    const swapped = checked({
      centre: { arrivalS: rear!.arrivalS },
      'surround-right': { arrivalS: centre!.arrivalS },
    });
    expect(sentencesOf(swapped, 'centre')[0]).toMatch(
      /^arrives 2\.\d ms earlier .* sounds like Surround right/,
    );
    expect(sentencesOf(swapped, 'surround-right')[0]).toMatch(
      /^arrives 2\.\d ms later .* sounds like Centre/,
    );
  });

  it('a channel that is somewhere else', () => {
    const [sentence] = sentencesOf(checked({ left: { arrivalS: 0.03 } }), 'left');
    expect(sentence).toMatch(/later than the plan says: see whether it stands where the plan has it/);
  });

  it('a silent subwoofer may hang on the other one; a silent loudspeaker is just silent', () => {
    const found = channelFindings(
      checked({ 'sub-2': { verdict: { ...silent, reasons: [...silent.reasons] }, arrivalS: null } }),
    );
    expect(found.get('sub-2')).toEqual([{ kind: 'silent', perhapsOn: { name: 'Sub 1', output: 6 } }]);
    const other = channelFindings(
      checked({ left: { verdict: { ...silent, reasons: [...silent.reasons] }, arrivalS: null } }),
    );
    expect(other.get('left')).toEqual([{ kind: 'silent', perhapsOn: null }]);
  });

  it('two on one output, and nothing else of either', () => {
    const loudspeakers = loft.place.loudspeakers.map((l) => (l.id === 'sub-2' ? { ...l, output: 6 } : l));
    const shared = checked({ 'sub-2': { reversed: true } }, { loudspeakers });
    expect(sentencesOf(shared, 'sub-2')).toEqual([
      'shares output 6 with Sub 1: match them first, one at a time',
    ]);
    expect(sentencesOf(shared, 'sub-1')).toEqual([
      'shares output 6 with Sub 2: match them first, one at a time',
    ]);
  });

  it('leaves out what is not fitted', () => {
    const loudspeakers = loft.place.loudspeakers.map((l) => (l.id === 'right' ? { ...l, fitted: false } : l));
    expect(channelFindings(checked({ right: { reversed: true } }, { loudspeakers })).has('right')).toBe(
      false,
    );
  });
});

it('says which pairs it cannot tell apart', () => {
  const pairs = untellable(loft).map(({ a, b }) => `${a}, ${b}`);
  expect(pairs).toContain('Left, Centre');
  expect(pairs).not.toContain('Left, Surround left');
});
