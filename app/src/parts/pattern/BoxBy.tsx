import { NativeSelect, SegmentedControl } from '@mantine/core';
import type { Project } from '@pebble-hall/core/project';
import type { MeasuredFrom } from './useMeasuredBox';
import { sweepName } from '../../services/libraryCurves';

interface BoxByProps {
  project: Project;
  from: MeasuredFrom | null;
  onFrom: (from: MeasuredFrom | null) => void;
}

/** What one box of a group is known by: its model, or what was measured ahead of it and behind it. */
export function BoxBy({ project, from, onFrom }: BoxByProps) {
  const traces = [
    ...project.kept
      .filter((k) => k.kind === 'transfer function')
      .map(({ id, name }) => ({ value: id, label: name })),
    ...project.sweeps.map((s) => ({ value: s.id, label: sweepName(project, s) })),
  ];
  const [first, second = first] = traces;
  return (
    <div className="row" role="group" aria-label="One box" style={{ justifyContent: 'flex-start', gap: 10 }}>
      One box by
      <SegmentedControl
        size="xs"
        aria-label="One box by"
        data={[
          { value: 'model', label: 'its model' },
          { value: 'traces', label: 'two traces', disabled: !first },
        ]}
        value={from ? 'traces' : 'model'}
        onChange={(by) =>
          onFrom(by === 'traces' && first && second ? { aheadId: first.value, behindId: second.value } : null)
        }
      />
      {from ? (
        <>
          <NativeSelect
            size="xs"
            aria-label="Measured ahead"
            data={traces}
            value={from.aheadId}
            onChange={(e) => onFrom({ ...from, aheadId: e.currentTarget.value })}
          />
          ahead,
          <NativeSelect
            size="xs"
            aria-label="Measured behind"
            data={traces}
            value={from.behindId}
            onChange={(e) => onFrom({ ...from, behindId: e.currentTarget.value })}
          />
          behind
        </>
      ) : first ? null : (
        <span className="quiet">or by two traces of it, once there are some in Traces</span>
      )}
    </div>
  );
}
