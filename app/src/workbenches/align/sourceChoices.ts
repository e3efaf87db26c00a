import {
  fittedOf,
  keptById,
  plainSetting,
  stepsBelow,
  usableSpots,
  type AlignSource,
  type Project,
  type SourceOf,
} from '@pebble-hall/core/project';
import { references } from '../../services/references';

/** Something that can be a source, as it stands in a list to choose from. */
export interface SourceChoice {
  value: string;
  label: string;
}
export interface ChoiceGroup {
  group: string;
  items: SourceChoice[];
}

/** A loudspeaker of the library stands so far away until somebody says otherwise, metres. */
const DISTANCE_M = 5;

/** Everything that can be a source: channels that were swept, traces with a phase, loudspeakers in the open, groups. @param stepId that it is for; null for one that is yet to be made */
export function sourceChoices(project: Project, stepId: string | null): ChoiceGroup[] {
  const swept = fittedOf(project).filter((l) => {
    const { averaged, leftOut } = usableSpots(project, l.id);
    return averaged.length + leftOut.length > 0;
  });
  const groups: ChoiceGroup[] = [
    {
      group: 'Channels, as they were swept',
      items: swept.map((l) => ({ value: `channel ${l.id}`, label: l.name })),
    },
    {
      group: 'Traces',
      items: project.kept
        .filter((k) => k.kind === 'transfer function')
        .map((k) => ({ value: `trace ${k.id}`, label: k.name })),
    },
    {
      group: 'Loudspeakers in the open, at a distance',
      items: references(project.place).map((r) => ({
        value: `distance ${r.id}`,
        label: `${r.name}, by its distance`,
      })),
    },
    {
      group: 'What was brought together before',
      items: project.alignSteps
        .filter(
          (s) => s.id !== stepId && (stepId === null || !stepsBelow(project.alignSteps, s.id).has(stepId)),
        )
        .map((s) => ({ value: `step ${s.id}`, label: `${s.name}, together` })),
    },
  ];
  return groups.filter((g) => g.items.length > 0);
}

/** The source that a choice stands for; null where it is gone. */
export function chosenSource(project: Project, value: string): AlignSource | null {
  const [kind, id] = [value.slice(0, value.indexOf(' ')), value.slice(value.indexOf(' ') + 1)];
  const found = ((): [string | undefined, SourceOf] => {
    switch (kind) {
      case 'channel':
        return [project.place.loudspeakers.find((l) => l.id === id)?.name, { kind, loudspeakerId: id }];
      case 'trace':
        return [keptById(project.kept).get(id)?.name, { kind: 'traces', traceIds: [id], shownId: id }];
      case 'distance':
        return [
          references(project.place).find((r) => r.id === id)?.name,
          { kind, referenceId: id, distanceM: DISTANCE_M, count: 1 },
        ];
      default:
        return [project.alignSteps.find((s) => s.id === id)?.name, { kind: 'step', stepId: id }];
    }
  })();
  const [name, of] = found;
  return name === undefined ? null : { ...plainSetting(), id: crypto.randomUUID(), name, of };
}

/** Two that are likely to be meant: a channel and a subwoofer, as they were swept. */
export function likelyPair(project: Project): [string, string] | null {
  const swept = fittedOf(project).filter((l) => usableSpots(project, l.id).averaged.length > 0);
  const main = swept.find((l) => l.role === 'full range');
  const sub = swept.find((l) => l.role === 'subwoofer');
  return main && sub ? [`channel ${main.id}`, `channel ${sub.id}`] : null;
}
