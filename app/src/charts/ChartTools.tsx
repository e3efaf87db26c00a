import { ActionIcon, Select } from '@mantine/core';
import { IconZoomIn, IconZoomOut, IconZoomReset } from '../icons';
import { memo } from 'react';

/** Octave fraction, or one that narrows towards the lows. */
export type Smoothing = number | 'variable';
const SMOOTHINGS = [1, 2, 3, 6, 12, 24, 48];
export const smoothingName = (s: Smoothing) => (s === 'variable' ? 'variable' : `1/${s} octave`);
const OFFERED = [...SMOOTHINGS, 'variable' as const].map((f) => ({
  value: String(f),
  label: smoothingName(f),
}));

interface SmoothingSelectProps {
  smoothing: Smoothing;
  onSmoothing: (smoothing: Smoothing) => void;
}

/** How finely a chart looks. Like the buttons beside it not drawn again while curves move. */
export const SmoothingSelect = memo(function SmoothingSelect({
  smoothing,
  onSmoothing,
}: SmoothingSelectProps) {
  return (
    <Select
      aria-label="Smoothing"
      size="xs"
      w={116}
      allowDeselect={false}
      data={OFFERED}
      value={String(smoothing)}
      onChange={(value) => value && onSmoothing(value === 'variable' ? value : Number(value))}
    />
  );
});

interface ZoomButtonsProps {
  onZoom: (factor: number) => void;
  onWhole: () => void;
}

/** Nearer, further away, and all of the band. */
export const ZoomButtons = memo(function ZoomButtons({ onZoom, onWhole }: ZoomButtonsProps) {
  return (
    <ActionIcon.Group>
      <ActionIcon variant="default" aria-label="Zoom in" onClick={() => onZoom(0.6)}>
        <IconZoomIn size={16} />
      </ActionIcon>
      <ActionIcon variant="default" aria-label="Zoom out" onClick={() => onZoom(1 / 0.6)}>
        <IconZoomOut size={16} />
      </ActionIcon>
      <ActionIcon variant="default" aria-label="Show the whole band" onClick={onWhole}>
        <IconZoomReset size={16} />
      </ActionIcon>
    </ActionIcon.Group>
  );
});
