import type { Point } from '@pebble-hall/core/geometry';
import { LengthField } from './LengthField';

/** A point of the place, coordinate by coordinate. @param label ahead of "x", "y" and "z" */
export const PointFields = ({
  label,
  at,
  unit,
  onChange,
}: {
  label: string;
  at: Point;
  unit: 'm' | 'ft';
  onChange: (at: Point) => void;
}) => (
  <span style={{ display: 'flex', gap: 6 }}>
    {(['x', 'y', 'z'] as const).map((axis) => (
      <LengthField
        key={axis}
        label={`${label} ${axis}`}
        value={at[axis]}
        unit={unit}
        onChange={(v) => onChange({ ...at, [axis]: v })}
      />
    ))}
  </span>
);
