import { ActionIcon, Button, Popover } from '@mantine/core';
import type { Correction } from '@pebble-hall/core/project';
import { IconTrash } from '../../../icons';
import { formatHz } from '../../../charts/chartMath';
import { NumberField } from '../../../parts/NumberField';
import type { Edit } from '../useCorrection';

/** Strength against frequency: points, linear between them over log frequency. And regularisation in words. */
export function StrengthButton({
  strengthPoints,
  onEdit,
}: Pick<Correction, 'strengthPoints'> & { onEdit: Edit }) {
  const points = [...strengthPoints].sort((a, b) => a.frequency - b.frequency);
  const set = (label: string, next: typeof points) => onEdit(label, { strengthPoints: next });
  const text =
    points.length === 0
      ? 'everywhere alike'
      : points.map((p) => `${Math.round(100 * p.share)} % at ${formatHz(p.frequency)}`).join(', ');
  return (
    <Popover position="top" withArrow shadow="sm">
      <Popover.Target>
        <Button size="compact-xs" variant="default" title={text}>
          {points.length === 0 ? 'By frequency' : `${points.length} points`}
        </Button>
      </Popover.Target>
      <Popover.Dropdown style={{ maxWidth: 380, fontSize: 13 }}>
        <b>Strength against frequency</b>
        <p className="quiet" style={{ margin: '2px 0 8px' }}>
          Multiplies the strength: {text}. Between two points it passes from one to the other, beyond them it
          stays.
        </p>
        {points.map((point, i) => (
          <div key={i} className="row" style={{ marginBottom: 5 }}>
            <NumberField
              label={`Strength point ${i + 1} frequency`}
              value={point.frequency}
              unit="Hz"
              min={20}
              max={20000}
              step={10}
              digits={0}
              onChange={(frequency) =>
                set(
                  'strength point moved',
                  points.map((p, k) => (k === i ? { ...p, frequency } : p)),
                )
              }
            />
            <NumberField
              label={`Strength point ${i + 1} share`}
              value={Math.round(100 * point.share)}
              unit="%"
              min={0}
              max={100}
              step={5}
              digits={0}
              width={80}
              onChange={(share) =>
                set(
                  'strength point changed',
                  points.map((p, k) => (k === i ? { ...p, share: share / 100 } : p)),
                )
              }
            />
            <ActionIcon
              variant="default"
              aria-label={`Remove strength point ${i + 1}`}
              onClick={() =>
                set(
                  'strength point removed',
                  points.filter((_, k) => k !== i),
                )
              }
            >
              <IconTrash size={15} />
            </ActionIcon>
          </div>
        ))}
        <Button
          size="compact-xs"
          variant="default"
          disabled={points.length >= 12}
          onClick={() =>
            set(
              'strength point added',
              points.length === 0
                ? [
                    { frequency: 300, share: 1 },
                    { frequency: 3000, share: 0.5 },
                  ]
                : [
                    ...points,
                    { frequency: Math.min(20000, points.at(-1)!.frequency * 2), share: points.at(-1)!.share },
                  ],
            )
          }
        >
          {points.length === 0 ? 'Less in the highs' : 'Add a point'}
        </Button>
        <p className="quiet" style={{ margin: '10px 0 0' }}>
          <b>How boosts are held back.</b> A dip is filled by its regularised inverse: shallow ones wholly,
          deep ones less and less, never beyond the boost limit. Where spots deviate by 8 dB only half the
          limit is left, and where a share of them is not of minimum phase, as much less. Cuts follow the
          target, halved where spots deviate by 12 dB.
        </p>
      </Popover.Dropdown>
    </Popover>
  );
}
