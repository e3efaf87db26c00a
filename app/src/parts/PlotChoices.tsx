import { NativeSelect, SegmentedControl, Switch } from '@mantine/core';
import type { ReactNode } from 'react';

interface PlotChoicesProps<Lower extends string, Fraction extends number> {
  lowers: readonly Lower[];
  lower: Lower;
  onLower: (lower: Lower) => void;
  fades: boolean;
  onFades: (fades: boolean) => void;
  /** octave fraction */
  smoothing: Fraction;
  onSmoothing: (smoothing: Fraction) => void;
  /** more about what is drawn below */
  children?: ReactNode;
}

const FRACTIONS = [3, 6, 12, 24, 48];

/** Between two plots over one frequency axis: what is drawn below, and how both are looked at. */
export const PlotChoices = <Lower extends string, Fraction extends number>(
  props: PlotChoicesProps<Lower, Fraction>,
) => (
  <div style={{ display: 'flex', alignItems: 'center', gap: 12, padding: '0 22px 0 12px' }}>
    <SegmentedControl
      size="xs"
      aria-label="Below the level"
      data={[...props.lowers]}
      value={props.lower}
      onChange={(value) => props.onLower(value as Lower)}
    />
    {props.children}
    <span style={{ flex: 1 }} />
    <Switch
      size="xs"
      label="fade by coherence"
      checked={props.fades}
      onChange={(e) => props.onFades(e.currentTarget.checked)}
    />
    <NativeSelect
      size="xs"
      w={104}
      aria-label="Smoothing"
      data={FRACTIONS.map((n) => ({ value: String(n), label: `1/${n} octave` }))}
      value={String(props.smoothing)}
      onChange={(e) => props.onSmoothing(Number(e.currentTarget.value) as Fraction)}
    />
  </div>
);
