import type { Project } from './types.js';

/**
 * The project without references to what is not in it, where nothing rests on them: of a file of somebody else they mean
 * nothing, and may never come to mean something else. Traces and steps of an alignment tell by themselves what they miss.
 */
export function withoutStrays(project: Project): Project {
  const ids = (list: readonly { id: string }[]) => new Set(list.map(({ id }) => id));
  const loudspeakers = ids(project.place.loudspeakers);
  const [sweeps, kept, chains, headphones, loads] = [
    ids(project.sweeps),
    ids(project.kept),
    ids(project.chains),
    ids(project.headphones),
    ids(project.loads),
  ];
  const only = (of: ReadonlySet<string>) => (id: string) => of.has(id);
  const orNone = (of: ReadonlySet<string>, id: string | null) => (id !== null && of.has(id) ? id : null);
  const { families, live, processor } = project;
  return {
    ...project,
    families:
      families &&
      families.map((f) => ({ ...f, loudspeakerIds: f.loudspeakerIds.filter(only(loudspeakers)) })),
    chains: project.chains.map((c) => ({ ...c, headphonesId: orNone(headphones, c.headphonesId) })),
    chainId: orNone(chains, project.chainId),
    sweepLooks: Object.fromEntries(Object.entries(project.sweepLooks).filter(([id]) => sweeps.has(id))),
    live: {
      ...live,
      generator: {
        ...live.generator,
        loudspeakerIds: live.generator.loudspeakerIds.filter(only(loudspeakers)),
      },
      electronics: { ...live.electronics, flatId: orNone(kept, live.electronics.flatId) },
    },
    processor:
      processor.adapter === 'files only'
        ? { ...processor, inPlaceId: orNone(loads, processor.inPlaceId) }
        : processor,
  };
}
