import { Button, Checkbox } from '@mantine/core';
import type { ExtensionPrice, RollOff, RollOffs, Target } from '@pebble-hall/core/correct';
import { formatHz } from '../../../charts/chartMath';
import type { EditTarget } from '../correctionVerbs';
import { NumberField } from '../../../parts/NumberField';

interface TargetEndsProps extends Pick<Target, 'keepsRollOff' | 'lowExtensionHz' | 'highExtensionHz'> {
  rollOffs: RollOffs;
  /** what extending them takes; null while both are kept */
  price: ExtensionPrice | null;
  onEdit: EditTarget;
}

const ENDS = [
  { name: 'Low end', side: 'low', key: 'lowExtensionHz', by: 0.8, min: 10, max: 1000, step: 1, width: 76 },
  {
    name: 'High end',
    side: 'high',
    key: 'highExtensionHz',
    by: 1.2,
    min: 1000,
    max: 20000,
    step: 100,
    width: 94,
  },
] as const;

/** The ends of the loudspeaker's own band: followed by the target, extended at a price in headroom, or not asked about at all. */
export function TargetEnds({
  keepsRollOff,
  lowExtensionHz,
  highExtensionHz,
  rollOffs,
  price,
  onEdit,
}: TargetEndsProps) {
  'use memo';
  const reaches = { lowExtensionHz, highExtensionHz };
  return (
    <>
      <Checkbox
        size="xs"
        label="Natural roll-off"
        title="Whether the target falls where the loudspeaker’s band ends. Off: what is drawn is what is asked for."
        checked={keepsRollOff}
        onChange={(e) => {
          const keeps = e.currentTarget.checked;
          onEdit(keeps ? 'natural roll-off kept' : 'natural roll-off not kept', (now) => ({
            ...now,
            keepsRollOff: keeps,
          }));
        }}
      />
      {ENDS.map((end) => {
        const found: RollOff | null = rollOffs[end.side];
        if (!found || !keepsRollOff) return null;
        const reach = reaches[end.key];
        const lower = end.name.toLowerCase();
        return (
          <span key={end.key} style={{ display: 'flex', gap: 4, alignItems: 'center' }}>
            <span
              title={`found: falls like a Butterworth filter of order ${found.order} from ${formatHz(found.cornerHz)} on`}
            >
              {end.name} {reach === null ? <span className="mono">{formatHz(found.cornerHz)}</span> : null}
            </span>
            {reach === null ? (
              <Button
                size="compact-xs"
                variant="default"
                aria-label={`Extend the ${lower}`}
                title={`The ${lower} is the loudspeaker’s natural roll-off and is kept. Extending it takes boost.`}
                onClick={() =>
                  onEdit(`${lower} extended`, (now) => ({
                    ...now,
                    [end.key]: Math.min(end.max, Math.max(end.min, Math.round(found.cornerHz * end.by))),
                  }))
                }
              >
                Extend
              </Button>
            ) : (
              <>
                <NumberField
                  label={`${end.name} extended to`}
                  value={reach}
                  unit="Hz"
                  min={end.min}
                  max={end.max}
                  step={end.step}
                  digits={0}
                  width={end.width}
                  onChange={(hz) =>
                    onEdit(`${lower} extended to ${hz} Hz`, (now) => ({ ...now, [end.key]: hz }))
                  }
                />
                <Button
                  size="compact-xs"
                  variant="default"
                  aria-label={`Keep its own ${lower}`}
                  title={`its own: ${formatHz(found.cornerHz)}`}
                  onClick={() => onEdit(`${lower} its own again`, (now) => ({ ...now, [end.key]: null }))}
                >
                  Own
                </Button>
              </>
            )}
          </span>
        );
      })}
      {price ? (
        <small
          className={price.costDb > 0.05 ? 'attention' : 'quiet'}
          role="status"
          aria-label="Price of the ends"
          title="Gain at the ends, and by how much the largest gain of this channel grows: the headroom guard takes that from every channel"
        >
          +{price.moreDb.toFixed(1)} dB; headroom {price.costDb.toFixed(1)} dB
        </small>
      ) : null}
    </>
  );
}
