import { CROSSOVER_KINDS, CROSSOVER_ORDERS, SECTION_KINDS, SHAPING_KINDS } from '../path/index.js';
import Joi from 'joi';
import { GUARDS, STEPS } from './correction.js';
import { byId, db, id, list, memoryName, number, span, text, time } from './schemaValues.js';

export const style = Joi.valid('minimum', 'mixed', 'linear');
export const crossover = Joi.object({
  kind: Joi.valid(...CROSSOVER_KINDS),
  order: Joi.when('kind', {
    switch: CROSSOVER_KINDS.map((is) => ({ is, then: Joi.valid(...CROSSOVER_ORDERS[is]) })),
  }),
  frequency: number.min(1).max(40_000),
}).allow(null);
const MOST_SECTIONS = 24;
const sectionsOf = (kinds: readonly string[]) =>
  list(
    Joi.object({
      kind: Joi.valid(...kinds),
      frequency: number.min(1).max(40_000),
      gainDb: number.min(-60).max(24),
      q: number.min(0.05).max(100),
    }),
    MOST_SECTIONS,
  );
const sections = sectionsOf(SHAPING_KINDS);
export const allPass = Joi.object({
  hz: number.min(1).max(100_000),
  q: number.min(0.05).max(50).allow(null),
});
const bassFeed = Joi.object({ gainDb: number.min(-80).max(24), lowPass: crossover }).allow(null);
export const target = Joi.object({
  handles: list(
    Joi.object({ frequency: number.min(1).max(100_000), levelDb: number.min(-60).max(60) }),
    64,
  ).min(1),
  lowLiftDb: number.min(-24).max(24),
  highTiltDb: number.min(-24).max(24),
  keepsRollOff: Joi.boolean(),
  lowExtensionHz: number.min(5).max(1000).allow(null),
  highExtensionHz: number.min(1000).max(40_000).allow(null),
});
export const correction = Joi.object({
  target,
  familyTargets: byId(target),
  strength: number.min(0).max(1),
  strengthPoints: list(Joi.object({ frequency: number.min(1).max(40_000), share: number.min(0).max(1) }), 64),
  maxBoostDb: number.min(0).max(24),
  maxCutDb: number.min(0).max(60),
  spans: byId(span),
  targetLevels: byId(number.min(-200).max(200)),
  filter: Joi.object({
    form: Joi.valid('fir', 'sections', 'both'),
    style,
    taps: number.integer().min(16).max(65_536).allow(null),
    sectionCount: number.integer().min(1).max(24),
    kinds: list(Joi.valid(...SHAPING_KINDS), 3).min(1),
    leastQ: number.min(0.05).max(100),
    mostQ: number.min(Joi.ref('leastQ')).max(100),
  }),
  sections: byId(sections),
  alignment: byId(
    Joi.object({
      trimDb: number.min(-80).max(24),
      delayMs: number.min(0).max(1000),
      inverted: Joi.boolean(),
    }),
  ),
  subs: byId(
    Joi.object({
      gainDb: number.min(-80).max(24),
      delayS: number.min(0).max(1),
      inverted: Joi.boolean(),
      sections,
    }),
  ),
  crossovers: byId(Joi.object({ highPass: crossover, lowPass: crossover })),
  allPasses: byId(list(allPass, MOST_SECTIONS).min(1)),
  lowChannel: bassFeed,
  headroomGuard: Joi.valid(...GUARDS),
  madeFrom: Joi.object(Object.fromEntries(STEPS.map((step) => [step, text.allow(null)]))),
});
const outputSettings = list(
  Joi.object({
    trimDb: db,
    delayMs: number.min(0).max(600_000),
    inverted: Joi.boolean(),
    muted: Joi.boolean(),
    size: Joi.valid('small', 'large'),
    highPass: crossover,
    lowPass: crossover,
    sections: sectionsOf(SECTION_KINDS),
    taps: number.integer().min(0).max(1_048_576),
    bassFeed,
    playsBass: Joi.boolean(),
  }),
  64,
).allow(null);
export const memoryLoad = Joi.object({
  id,
  letter: memoryName,
  name: text.allow(''),
  loadedAt: time,
  checksum: number,
  filters: byId(id),
  spans: byId(span),
  outputs: outputSettings,
  before: outputSettings,
  designKey: text,
  variantId: id.allow(null),
  variantName: text.allow(''),
  verdict: Joi.object({ of: text, missing: list(id, 64) }).allow(null),
});
