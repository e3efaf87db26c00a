import { NumberInput } from '@mantine/core';
import { useState } from 'react';
import { useKeySteps } from '../services/useKeySteps';

export interface NumberFieldProps {
  label: string;
  value: number;
  unit: string;
  min: number;
  max: number;
  step: number;
  digits?: number;
  disabled?: boolean;
  width?: number;
  /** called when the value is settled: Enter, leaving the field, or a step */
  onChange: (value: number) => void;
}

/** A number with its unit: type it, or step it with the arrow keys; out-of-range input goes to the nearest limit. */
export function NumberField({
  label,
  value,
  unit,
  min,
  max,
  step,
  digits = 1,
  disabled,
  width = 118,
  onChange,
}: NumberFieldProps) {
  /** what is being typed; null while the field shows its value */
  const [typed, setTyped] = useState<number | string | null>(null);
  const steps = useKeySteps(value);
  const draft = typed ?? Number(value.toFixed(digits));
  const settle = (next: number | string) => {
    const number = Number(next);
    const good = next !== '' && Number.isFinite(number) ? Math.min(max, Math.max(min, number)) : value;
    setTyped(null);
    // what was only shown rounded is not changed by leaving the field
    if (good !== value && good !== Number(value.toFixed(digits))) onChange(good);
  };
  return (
    <NumberInput
      aria-label={label}
      size="xs"
      w={width}
      value={draft}
      suffix={` ${unit}`}
      decimalScale={digits}
      step={step}
      min={min}
      max={max}
      disabled={disabled ?? false}
      hideControls
      clampBehavior="none"
      onChange={setTyped}
      onBlur={() => settle(draft)}
      onKeyDown={(event) => {
        if (event.key === 'Enter') settle(draft);
        if (event.key !== 'ArrowUp' && event.key !== 'ArrowDown') return;
        event.preventDefault();
        const by = (event.key === 'ArrowUp' ? step : -step) * (event.shiftKey ? 10 : 1);
        const from = typed === null ? Number(steps.now.toFixed(digits)) : Number(draft);
        if (!Number.isFinite(from)) return settle(draft);
        setTyped(null);
        const next = Math.min(max, Math.max(min, Number((from + by).toFixed(digits))));
        if (next !== steps.now) onChange(steps.took(next));
      }}
      classNames={{ input: 'mono' }}
      styles={{ input: { textAlign: 'right' } }}
    />
  );
}
