import { Button, Checkbox, Popover } from '@mantine/core';
import { memo } from 'react';
import { NumberField } from '../../../parts/NumberField';
import type { Shown } from '../pages';

/** What the level plot draws beside the average, and from which miss on a channel is marked. */
export const ShowMenu = memo(function ShowMenu({
  shown,
  group,
  sendsBass,
  onShown,
  missOver,
  onMissOver,
}: {
  shown: Shown;
  /** whether several channels are seen */
  group: boolean;
  /** whether any channel sends its bass to the subwoofers */
  sendsBass: boolean;
  onShown: (shown: Shown) => void;
  missOver: number;
  onMissOver: (db: number) => void;
}) {
  const box = (key: keyof Shown, label: string) => (
    <Checkbox
      size="xs"
      label={label}
      checked={shown[key]}
      onChange={(e) => onShown({ ...shown, [key]: e.currentTarget.checked })}
    />
  );
  return (
    <Popover position="bottom-end" withArrow shadow="sm">
      <Popover.Target>
        <Button size="compact-sm" variant="default">
          Show
        </Button>
      </Popover.Target>
      <Popover.Dropdown style={{ display: 'grid', gap: 8, fontSize: 13 }}>
        {group ? box('found', 'each channel as found') : null}
        {box('seatRangeBefore', 'seat range as found')}
        {box('seatRangeAfter', 'seat range as left')}
        {group ? null : box('spots', 'single spots')}
        {sendsBass ? box('alone', 'channels without their bass') : null}
        <div className="row">
          <span>Mark channels that miss by more than</span>
          <NumberField
            label="Mark misses over"
            value={missOver}
            unit="dB"
            min={1}
            max={20}
            step={0.5}
            width={76}
            onChange={onMissOver}
          />
        </div>
      </Popover.Dropdown>
    </Popover>
  );
});
