import { targetCurve, type ChannelDesign, type Target, type TargetHandle } from '@pebble-hall/core/correct';
import type { HandleEvents } from '../../../charts/ChartHandles';
import type { EditTarget } from '../correctionVerbs';

/** The handles of a target in the plot: where they stand, and what a hand does with them. */
export function targetHandles(
  target: Target,
  { targetDb, targetOffsetDb }: Pick<ChannelDesign, 'targetDb' | 'targetOffsetDb'>,
  grid: Float64Array,
  onEdit: EditTarget,
): Omit<HandleEvents, 'selected' | 'onSelect'> {
  const { handles } = target;
  // lift, tilt and roll-offs come on top of what the handles say: handles stand on the curve
  const onTopDb = (f: number) => {
    const above = grid.findIndex((g) => g >= f);
    return targetDb[above < 0 ? grid.length - 1 : above]! - targetOffsetDb - betweenHandles(handles, f);
  };
  const edit = (label: string, change: (now: TargetHandle[]) => TargetHandle[], done?: boolean) =>
    onEdit(label, (now) => ({ ...now, handles: change(now.handles) }), done);
  return {
    handles,
    offsetDb: targetOffsetDb,
    onTopDb,
    onMove: (index, moved, done) =>
      edit('target handle moved', (now) => now.map((h, i) => (i === index ? moved : h)), done),
    onAdd: (frequency, levelDb) => {
      const own = Math.round(10 * (levelDb - targetOffsetDb - onTopDb(frequency))) / 10;
      edit('target handle added', (now) => [...now, { frequency, levelDb: own }]);
    },
    onRemove: (index) => {
      if (handles.length > 1) edit('target handle removed', (now) => now.filter((_, i) => i !== index));
    },
  };
}

/** A new handle where the old ones leave most room, on the curve as it is, so that nothing changes until it is moved. */
export function handleInWidestGap(handles: TargetHandle[]): TargetHandle {
  const edges = [LOWEST, ...handles.map((h) => h.frequency).sort((a, b) => a - b), HIGHEST];
  let widest = 0;
  for (let i = 1; i < edges.length - 1; i++)
    if (edges[i + 1]! / edges[i]! > edges[widest + 1]! / edges[widest]!) widest = i;
  const frequency = Number(Math.sqrt(edges[widest]! * edges[widest + 1]!).toPrecision(2));
  const level = targetCurve(handles, Float64Array.of(frequency))[0]!;
  return { frequency, levelDb: Math.round(10 * level) / 10 };
}
const LOWEST = 20;
const HIGHEST = 20000;

/** Level of the nearest handles at a frequency, straight between them; near enough to tell what comes on top. */
function betweenHandles(handles: { frequency: number; levelDb: number }[], f: number): number {
  const sorted = [...handles].sort((a, b) => a.frequency - b.frequency);
  const after = sorted.findIndex((h) => h.frequency >= f);
  if (after <= 0) return sorted[after < 0 ? sorted.length - 1 : 0]!.levelDb;
  const [a, b] = [sorted[after - 1]!, sorted[after]!];
  const t = Math.log(f / a.frequency) / Math.log(b.frequency / a.frequency);
  return a.levelDb + t * (b.levelDb - a.levelDb);
}
