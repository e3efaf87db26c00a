import type { Point } from '@pebble-hall/core/geometry';
import { LengthField } from '../../parts/LengthField';

const WORDS = { x: 'from front', y: 'from left', z: 'height' } as const;
const LABELS = { x: 'Distance from the front', y: 'Distance from the left', z: 'Height' } as const;

/** Where something is, by three numbers. */
export function PositionFields({
  at,
  unit,
  disabled = false,
  onChange,
}: {
  at: Point;
  unit: 'm' | 'ft';
  disabled?: boolean;
  onChange: (at: Point) => void;
}) {
  return (
    <div className="row compact-fields" style={{ gap: 6 }}>
      {(['x', 'y', 'z'] as const).map((axis) => (
        <label key={axis} style={{ display: 'grid', gap: 2, fontSize: 12 }}>
          {WORDS[axis]}
          <LengthField
            label={LABELS[axis]}
            value={at[axis]}
            unit={unit}
            width={78}
            step={0.05}
            disabled={disabled}
            onChange={(v) => onChange({ ...at, [axis]: v })}
          />
        </label>
      ))}
    </div>
  );
}
