import { newLive } from './live.js';
import { drawn, surfaced } from './migratePlace.js';
import { HOUSE_UNIT, PROJECT_VERSION } from './types.js';

type Stored = Record<string, unknown>;
type Step = (project: Stored) => Stored;

const mapValues = (map: unknown, change: (value: Stored) => Stored): Stored =>
  Object.fromEntries(
    Object.entries((map ?? {}) as Record<string, Stored>).map(([key, v]) => [key, change(v)]),
  );

/**
 * Steps from one version of the project's shape to the next; once released, a step is never edited.
 * 1 to 2: microphones with gain, direction and level calibrations; real devices, timing, round trip, distances; checks
 * know arrival and polarity; spots have a weight.
 * 4 to 5: variants of the correction, each with target, filter, alignment, subwoofers, crossovers; loads keep settings;
 * listening trials and chains.
 * 5 to 6: bass management: a low-frequency channel in every correction, what goes to the subwoofers in every output;
 * loads keep their verdict.
 * 6 to 7: a correction knows what its steps rested on.
 * 7 to 8: a target tells whether it keeps natural roll-offs, the headroom guard for which signals it is; sweeps keep polarity
 * and what stood out of the noise; names of the trade.
 * 8 to 9: the place is drawn: outline, ceiling, surfaces with their absorption, audience; loudspeakers with groups; a processor is
 * chosen.
 * 9 to 10: loudspeaker models of one's own.
 * 10 to 11: live sessions, and the traces that were kept.
 * 11 to 12: traces through a window and another microphone file; views of the library; steps of an alignment.
 * 12 to 13: surfaces scatter, and may be made of a material; materials of one's own; the reverberation time that is wanted.
 * 13 to 14: runs of the room model.
 * 14 to 15: sweeps of the walk are looked at in the library as other traces are; audience areas count unalike in an alignment.
 * 15 to 16: all-passes in a correction; runs know whose cores trace them.
 * 3 to 4: several microphones, floor-and-ear pairs, ground-plane spots, repeats, reference clicks, harmonics, families.
 * 2 to 3: rounds; a sweep can be left out by itself and noted, and knows what it was taken with and where it sinks into noise.
 */
const STEPS: Record<number, Step> = {
  1: (project) => {
    const { microphone, calibrationId, checks, noise, ...rest } = project['rig'] as Stored;
    const id = 'microphone-1';
    const calibrations = project['calibrations'] as Record<string, Stored> | undefined;
    const place = (project['place'] ?? {}) as Stored;
    return {
      ...project,
      version: 2,
      place: { ...place, spots: ((place['spots'] ?? []) as Stored[]).map((s) => ({ ...s, weight: 1 })) },
      calibrations: mapValues(calibrations, (c) => ({ ...c, incidenceDeg: null, sensitivityDb: null })),
      rig: {
        ...rest,
        device: null,
        microphones: [
          {
            id,
            make: microphone,
            serial: calibrations?.[calibrationId as string]?.['serial'] ?? '',
            pointing: 'at the source',
            input: 1,
            gainDb: 0,
            calibrationIds: calibrationId === null ? [] : [calibrationId],
            calibrationId,
            levels: [],
          },
        ],
        microphoneId: id,
        loopbackInput: 2,
        timing: 'loopback',
        clickFrom: null,
        roundTrip: null,
        distances: [],
        heardTraces: {},
        processorBefore: null,
        noise: noise ? { ...(noise as Stored), traits: [] } : null,
        checks: mapValues(checks, (check) => ({
          ...check,
          arrivalS: null,
          reversed: null,
          certainty: null,
          distortionDb: -Infinity,
          delayS: 0,
          traceId: null,
        })),
      },
      sweeps: (project['sweeps'] as Stored[]).map((sweep) => ({ ...sweep, microphoneId: id })),
    };
  },
  2: (project) => {
    const sweeps = project['sweeps'] as Stored[];
    const id = 'round-1';
    const startedAt = Math.min(...sweeps.map((s) => s['takenAt'] as number));
    return {
      ...project,
      version: 3,
      rounds: [{ id, name: 'First round', startedAt: Number.isFinite(startedAt) ? startedAt : 0, note: '' }],
      roundId: id,
      sweeps: sweeps.map((sweep) => ({
        ...sweep,
        roundId: id,
        inAverage: true,
        note: '',
        takenWith: null,
        decayEnd: null,
      })),
    };
  },
  3: (project) => {
    const place = project['place'] as Stored;
    return {
      ...project,
      version: 4,
      place: { ...place, spots: (place['spots'] as Stored[]).map((s) => ({ ...s, surface: 'ear' })) },
      rig: { ...(project['rig'] as Stored), alongIds: [], pairs: [], repeats: 1, referenceFrom: null },
      families: null,
      sweeps: (project['sweeps'] as Stored[]).map((sweep) => ({
        ...sweep,
        levelOffsetDb: 0,
        repeats: 1,
        harmonicsId: null,
        referenceId: null,
        floor: null,
        groundPlane: false,
      })),
    };
  },
  4: (project) => {
    const { correction, ...rest } = project;
    const { handles, ...limits } = correction as Stored;
    const id = 'variant-1';
    return {
      ...rest,
      version: 5,
      variants: [
        {
          id,
          name: 'First variant',
          note: '',
          madeAt: 0,
          correction: {
            ...limits,
            target: { handles, lowLiftDb: 0, highTiltDb: 0, lowReachHz: null },
            familyTargets: {},
            strengthPoints: [],
            filter: {
              form: 'fir',
              style: 'minimum',
              taps: null,
              sectionCount: 10,
              kinds: ['peak', 'low shelf', 'high shelf'],
              leastQ: 0.3,
              mostQ: 12,
            },
            sections: {},
            alignment: {},
            subs: {},
            crossovers: {},
            headroomGuard: false,
          },
          restsOn: null,
        },
      ],
      variantId: id,
      loads: (project['loads'] as Stored[]).map((load) => ({
        ...load,
        outputs: null,
        before: null,
        variantId: null,
        variantName: '',
      })),
      pendingLoad: null,
      trials: [],
      chains: [],
      headphones: [],
      chainId: null,
    };
  },
  5: (project) => {
    const withBass = (outputs: unknown) =>
      (outputs as Stored[] | null)?.map((o) => ({ ...o, bassFeed: null, playsBass: false })) ?? null;
    const load = (l: Stored) => ({
      ...l,
      outputs: withBass(l['outputs']),
      before: withBass(l['before']),
      verdict: null,
    });
    const pending = project['pendingLoad'] as Stored | null;
    const reaching = (target: unknown) => ({ ...(target as Stored), highReachHz: null });
    const corrected = (c: Stored) => ({
      ...c,
      target: reaching(c['target']),
      familyTargets: Object.fromEntries(
        Object.entries(c['familyTargets'] as Stored).map(([id, target]) => [id, reaching(target)]),
      ),
      lowChannel: null,
    });
    return {
      ...project,
      version: 6,
      variants: (project['variants'] as Stored[]).map((v) => ({
        ...v,
        correction: corrected(v['correction'] as Stored),
      })),
      headphones: (project['headphones'] as Stored[]).map((h) => ({ ...h, target: reaching(h['target']) })),
      chains: (project['chains'] as Stored[]).map((c) => ({ ...c, outputId: '' })),
      loads: (project['loads'] as Stored[]).map(load),
      pendingLoad: pending && { ...pending, load: load(pending['load'] as Stored) },
    };
  },
  6: (project) => ({
    ...project,
    version: 7,
    variants: (project['variants'] as Stored[]).map((v) => ({
      ...v,
      correction: {
        ...(v['correction'] as Stored),
        madeFrom: { subs: null, levels: null, crossover: null },
      },
    })),
  }),
  7: (project) => {
    const now = renamed(project, {
      marginDb: 'snrDb',
      takenWith: 'conditions',
      lowReachHz: 'lowExtensionHz',
      highReachHz: 'highExtensionHz',
    }) as Stored;
    const kept = (target: unknown) => ({ ...(target as Stored), keepsRollOff: true });
    return {
      ...now,
      version: 8,
      variants: (now['variants'] as Stored[]).map((v) => {
        const c = v['correction'] as Stored;
        return {
          ...v,
          correction: {
            ...c,
            target: kept(c['target']),
            familyTargets: mapValues(c['familyTargets'], kept),
            headroomGuard: c['headroomGuard'] ? 'programme' : 'off',
          },
        };
      }),
      headphones: (now['headphones'] as Stored[]).map((h) => ({ ...h, target: kept(h['target']) })),
      sweeps: ((now['sweeps'] ?? []) as Stored[]).map((s) => ({ ...s, polarity: null, noise: [] })),
    };
  },
  8: (project) => ({
    ...project,
    version: 9,
    place: drawn(project['place'] as Stored),
    processor: { adapter: 'stand-in', unit: HOUSE_UNIT },
  }),
  9: (project) => ({
    ...project,
    version: 10,
    place: { ...(project['place'] as Stored), models: [] },
  }),
  10: (project) => {
    const { loudspeakers } = project['place'] as { loudspeakers?: { id: string; output: number }[] };
    const { loopbackInput } = (project['rig'] ?? {}) as { loopbackInput?: number | null };
    const live = newLive(loudspeakers ?? [], loopbackInput ?? null);
    return { ...project, version: 11, live, kept: [], readings: [] };
  },
  11: (project) => ({
    ...project,
    version: 12,
    kept: ((project['kept'] ?? []) as Stored[]).map((k) => ({
      ...k,
      origin:
        (k['origin'] as Stored)['by'] === 'live' ? { ...(k['origin'] as Stored), floor: null } : k['origin'],
      view: { ...(k['view'] as Stored), window: null, calibrationId: null },
    })),
    libraryViews: [],
    alignSteps: [],
  }),
  12: (project) => ({ ...project, version: 13, place: surfaced(project['place'] as Stored) }),
  13: (project) => ({ ...project, version: 14, roomRuns: [] }),
  14: (project) => ({
    ...project,
    version: 15,
    sweepLooks: {},
    alignSteps: ((project['alignSteps'] ?? []) as Stored[]).map((s) => ({ ...s, areaWeights: {} })),
  }),
  15: (project) => ({
    ...project,
    version: 16,
    variants: ((project['variants'] ?? []) as Stored[]).map((v) => ({
      ...v,
      correction: { ...(v['correction'] as Stored), allPasses: {} },
    })),
    roomRuns: ((project['roomRuns'] ?? []) as Stored[]).map((r) => ({ ...r, tracedBy: 'browser' })),
  }),
};

/** The same with other names for some keys, however deep they lie. */
function renamed(value: unknown, names: Record<string, string>): unknown {
  if (Array.isArray(value)) return value.map((v) => renamed(v, names));
  if (value === null || typeof value !== 'object' || ArrayBuffer.isView(value)) return value;
  return Object.fromEntries(Object.entries(value).map(([key, v]) => [names[key] ?? key, renamed(v, names)]));
}

/**
 * A project of an older version in today's shape; one of today's comes back as it is. Not checked: that is done after it.
 * @throws when the project is newer than this program, or too broken to be carried over
 */
export function migrateProject<T>(project: T): T {
  let now = project as Stored;
  const version = now?.['version'];
  if (typeof version !== 'number' || version > PROJECT_VERSION) {
    throw new RangeError(
      `migrateProject: cannot read version ${String(version)}, only up to ${PROJECT_VERSION}`,
    );
  }
  for (let v = version; v < PROJECT_VERSION; v++) now = STEPS[v]!(now);
  return now as T;
}
