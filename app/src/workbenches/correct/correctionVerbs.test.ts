import { familiesOf, variantOf, type Correction } from '@pebble-hall/core/project';
import { describe, expect, it } from 'vitest';
import { netLoftProject } from '../../../../demo/netLoftProject';
import { correctionVerbs } from './correctionVerbs';
import type { Edit } from './useCorrection';

const project = netLoftProject();
const { correction } = variantOf(project);
const family = familiesOf(project).find((f) => f.loudspeakerIds.includes('left'))!;
const handed = (change: Partial<Correction> = {}) => {
  const edits: [string, Partial<Correction>, boolean | undefined][] = [];
  const inHand = {
    channel: { id: 'left', name: 'Left' },
    family,
    spanId: 'left',
    targetOffsets: { left: -31, right: -33 },
  };
  const now = { ...correction, ...change };
  const edit: Edit = (label, next, done) =>
    edits.push([label, typeof next === 'function' ? next(now) : next, done]);
  return { edits, verbs: correctionVerbs(inHand, edit) };
};
const other = { ...correction.target, lowLiftDb: 3 };
const span = { from: 60, to: 9000 };

describe('what a hand does to a target', () => {
  it('changes the shared one and keeps where each stands, so that none shifts under the hand', () => {
    const { verbs, edits } = handed({ targetLevels: { right: -30 } });
    verbs.setTarget('lifted', () => other, false);
    expect(edits).toEqual([['lifted', { target: other, targetLevels: { left: -31, right: -30 } }, false]]);
  });

  it('gives a family one of its own, changes that alone, and takes it back', () => {
    const shared = handed();
    shared.verbs.setOwnTarget(true);
    expect(shared.edits[0]![1]).toEqual({ familyTargets: { [family.id]: correction.target } });
    const own = handed({ familyTargets: { [family.id]: other, else: other } });
    own.verbs.setTarget('x', (now) => ({ ...now, lowLiftDb: now.lowLiftDb + 1 }));
    expect(own.edits[0]![1]).toMatchObject({
      familyTargets: { [family.id]: { ...other, lowLiftDb: 4 }, else: other },
    });
    expect(own.edits[0]![1].target).toBeUndefined();
    own.verbs.setOwnTarget(false);
    expect(own.edits[1]![1]).toEqual({ familyTargets: { else: other } });
  });

  it('shifts all of them alike, and lets them find their place again', () => {
    const { verbs, edits } = handed();
    verbs.shiftTarget(-0.5);
    verbs.placeTargetAgain();
    expect(edits.map((e) => e[1])).toEqual([
      { targetLevels: { left: -31.5, right: -33.5 } },
      { targetLevels: {} },
    ]);
  });
});

describe('what a hand does to a span', () => {
  it('sets that of a channel, that of its whole family, or lets it be found again', () => {
    const { verbs, edits } = handed({ spans: { left: span, right: span } });
    verbs.setSpan({ from: 50, to: 9000 }, 'from', false);
    expect(edits[0]).toEqual([
      'span of Left',
      // the end that was not moved stays as it is stored, whatever the screen showed
      { spans: { left: { from: 50, to: span.to }, right: span } },
      false,
    ]);
    verbs.findSpan();
    expect(edits[1]![1]).toEqual({ spans: { right: span } });
    verbs.setFamilySpan(span);
    expect(Object.keys(edits[2]![1].spans!).sort()).toEqual([...family.loudspeakerIds].sort());
  });
});
