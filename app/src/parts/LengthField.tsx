import { unitM } from '../drawing';
import { NumberField } from './NumberField';

interface LengthFieldProps {
  label: string;
  /** metres */
  value: number;
  unit: 'm' | 'ft';
  min?: number;
  max?: number;
  step?: number;
  digits?: number;
  width?: number;
  disabled?: boolean;
  onChange: (metres: number) => void;
}

/** No place is larger, metres. */
const MOST_M = 2000;

/** A length, kept in metres, shown and typed in the unit of the place. */
export function LengthField({
  label,
  value,
  unit,
  min = -MOST_M,
  max = MOST_M,
  step = 0.1,
  digits = 2,
  width = 84,
  disabled,
  onChange,
}: LengthFieldProps) {
  const scale = unitM(unit);
  return (
    <NumberField
      label={label}
      value={value / scale}
      unit={unit}
      min={min / scale}
      max={max / scale}
      step={unit === 'ft' ? Math.max(0.1, step) : step}
      digits={digits}
      width={width}
      disabled={disabled ?? false}
      onChange={(v) => onChange(Math.round(1e4 * v * scale) / 1e4)}
    />
  );
}
