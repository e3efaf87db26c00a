import { netLoftProject } from '../../../../../demo/netLoftProject';
import { designChannel, measuredChannel, STARTING_GOAL } from '@pebble-hall/core/correct';
import { plainOutput } from '@pebble-hall/core/processing';
import { familiesOf, type MemoryLoad, type Project, designKey } from '@pebble-hall/core/project';
import { expect, it } from 'vitest';
import { reportHtml } from './reportHtml';
import type { SpotVerdict } from '../verify/spotVerdicts';
import { grid } from '../verify/compareLoad';

const bump = grid.map(
  (f) =>
    10 **
    ((9 * Math.exp(-(Math.log2(f / 90) ** 2) * 20) - 20 * Math.exp(-(Math.log2(f / 400) ** 2) * 40)) / 10),
);
const project: Project = {
  ...netLoftProject(),
  name: 'Loft <evening>',
  trials: [
    {
      id: 't',
      kind: 'same or different',
      startedAt: 0,
      spotName: 'Home spot',
      material: 'Story, spoken',
      candidates: [],
      answers: [1, 1, 1, 1, 1, 1, 1, 1],
      matched: true,
    },
  ],
};
const outputs = Array.from({ length: 12 }, () => ({ ...plainOutput(), trimDb: -3.2, delayMs: 1.5 }));
const load: MemoryLoad = {
  id: 'l',
  letter: 'B',
  name: '',
  loadedAt: 0,
  checksum: 1,
  filters: {},
  spans: { left: { from: 40, to: 16000 } },
  outputs,
  before: outputs,
  designKey: designKey(project),
  variantId: 'variant-1',
  variantName: 'First variant',
  verdict: null,
};
const design = designChannel(
  grid,
  { ...STARTING_GOAL, id: 'left', span: null, targetOffsetDb: null },
  measuredChannel(grid, [bump, bump]),
);
const levels = bump.map((p) => 10 * Math.log10(p));
const comparison = {
  id: 'left',
  span: load.spans['left']!,
  foundDb: levels,
  predictedDb: design.predicted.averageDb,
  verifiedDb: design.predicted.averageDb,
  difference: {
    rmsDb: 0.1,
    worstDb: -0.21,
    worstAt: 1000,
    noiseDb: 0,
    agrees: true,
    unjudged: 0,
    isJudged: true,
    octaves: 6.6,
    raiseDb: 0,
  },
  reasons: [],
};
const make = (over: Partial<Project> = {}, withBass: (typeof comparison)[] = [], spots: SpotVerdict[] = []) =>
  reportHtml({
    project: { ...project, ...over },
    load,
    comparisons: [comparison],
    spots,
    withBass,
    designs: [design],
    sendsBass: new Set(),
    madeAt: 0,
  });

it('tells figures, settings, what was left alone and why, and trials; nothing typed can become markup', () => {
  const html = make();
  expect(html).toContain('Loft &lt;evening&gt;');
  expect(html).not.toContain('<evening>');
  expect(html).toContain(`${design.distance.before.toFixed(2)} dB`);
  expect(html).toContain('−0.21 dB at 1 kHz');
  expect(html).toContain('as predicted');
  expect(html).toMatch(/<td>−3\.2 dB<\/td><td>1\.50 ms<\/td>/);
  expect(html).toMatch(/Dip at .* Hz, −\d+\.\d dB, is shared by the spots/);
  expect(html).toContain('Right in 8 of 8 turns');
  expect(html.match(/<figure>/g)).toHaveLength(1);
  expect(html).not.toContain('has changed since');
  expect(html).toContain("font:14px/1.45 'Atkinson");
});

it('tells what the subwoofers make of the bass that a channel sends, once it was measured', () => {
  expect(make()).not.toContain('With the bass');
  const html = make({}, [
    { ...comparison, difference: { ...comparison.difference, worstDb: 0.44, worstAt: 80 } },
  ]);
  expect(html).toContain('With the bass that the subwoofers play for them');
  expect(html).toContain('+0.44 dB at 80 Hz');
  const unmeasured = { ...comparison, verifiedDb: null, difference: null } as unknown as typeof comparison;
  expect(make({}, [unmeasured])).not.toContain('With the bass');
});

it('tells what every spot came to, once more than one was measured again', () => {
  const at = (name: string, db: number): SpotVerdict => ({
    spotId: name,
    name,
    measured: 7,
    worst: { id: 'left', db, at: 250 },
    agrees: Math.abs(db) <= 0.5,
    unjudged: 0,
  });
  expect(make({}, [], [at('Home spot', 0.1)])).not.toContain('At every spot');
  const html = make({}, [], [at('Home spot', 0.1), at('Spot 2', -0.62)]);
  expect(html).toMatch(/<td>Spot 2<\/td><td>7<\/td><td>−0\.62 dB at 250 Hz<\/td><td>Left<\/td>/);
});

it('tells the whole target: handles, lift, tilt, ends that are pushed, and targets of families', () => {
  const [variant] = project.variants;
  const target = { ...variant!.correction.target, lowLiftDb: 2, highTiltDb: -0.5, lowExtensionHz: 45 };
  const [family] = familiesOf(project);
  const correction = {
    ...variant!.correction,
    target,
    familyTargets: { [family!.id]: { ...target, highExtensionHz: 17000, lowExtensionHz: null } },
  };
  const html = make({ variants: [{ ...variant!, correction }] });
  expect(html).toContain(
    'lows lifted by +2.0 dB; highs tilted by −0.5 dB per octave; low end extended to 45',
  );
  expect(html).toMatch(new RegExp(`Target of ${family!.name}.*high end extended to 17`));
});

it('says so when the correction has changed since it was loaded', () => {
  const [variant] = project.variants;
  const changed = { ...variant!, correction: { ...variant!.correction, strength: 0.5 } };
  expect(make({ variants: [changed] })).toContain('has changed since it was loaded');
});
