import { NumberInput } from '@mantine/core';
import { useState } from 'react';

interface Props {
  label: string;
  value: number | null;
  unit: string;
  min: number;
  max: number;
  onChange: (value: number | null) => void;
}

/** A figure that is published, or left empty where it is not. */
export function PublishedField({ label, value, unit, min, max, onChange }: Props) {
  const [typed, setTyped] = useState<number | string | null>(null);
  const settle = () => {
    if (typed === null) return;
    const number = Number(typed);
    const next = typed === '' ? null : Number.isFinite(number) ? Math.min(max, Math.max(min, number)) : value;
    setTyped(null);
    if (next !== value) onChange(next);
  };
  return (
    <NumberInput
      aria-label={label}
      size="xs"
      w={100}
      placeholder="–"
      hideControls
      suffix={unit === '' ? '' : ` ${unit}`}
      decimalScale={3}
      value={typed ?? value ?? ''}
      onChange={setTyped}
      onBlur={settle}
      onKeyDown={(e) => e.key === 'Enter' && settle()}
    />
  );
}
