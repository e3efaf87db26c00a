import { Button } from '@mantine/core';
import { facetOrder } from '@pebble-hall/core/room';
import { MOST_RECEIVER_SECONDS, RAYS_PER_GROUP } from '@pebble-hall/core/runs';
import { NumberField } from '../../parts/NumberField';
import type { RunNumbersAsked } from './newRun';

interface Props {
  /** as the run has them, suggested or typed */
  numbers: Required<RunNumbersAsked>;
  groups: number;
  /** what was typed in place of what is suggested */
  own: RunNumbersAsked;
  faces: number;
  receivers: number;
  onChange: (own: RunNumbersAsked) => void;
}

/** Rays, length and mirrored ways of a run: suggested by the room and by how sure it is to be, and typed over by who knows better. */
export function RunNumbers({ numbers, groups, own, faces, receivers, onChange }: Props) {
  const { raysPerGroup, lengthS, mirrored } = numbers;
  return (
    <details>
      <summary style={{ cursor: 'pointer' }}>Rays, length and mirrored ways</summary>
      <div style={{ display: 'grid', gap: 8, paddingTop: 8 }}>
        <div className="row">
          <span>Rays from each source</span>
          <NumberField
            label="Rays from each source"
            value={raysPerGroup * groups}
            unit="rays"
            digits={0}
            min={RAYS_PER_GROUP.least * groups}
            max={RAYS_PER_GROUP.most * groups}
            step={100 * groups}
            width={150}
            onChange={(rays) => onChange({ ...own, raysPerGroup: Math.round(rays / groups) })}
          />
        </div>
        <div className="row">
          <span>Responses last</span>
          <NumberField
            label="Responses last"
            value={lengthS}
            unit="s"
            min={0.1}
            max={Math.min(20, MOST_RECEIVER_SECONDS / Math.max(1, receivers))}
            step={0.1}
            onChange={(s) => onChange({ ...own, lengthS: s })}
          />
        </div>
        <div className="row">
          <span>By mirrors alone, up to</span>
          <NumberField
            label="By mirrors alone, up to"
            value={mirrored}
            unit="faces"
            digits={0}
            min={0}
            max={facetOrder(faces)}
            step={1}
            onChange={(order) => onChange({ ...own, mirrored: Math.round(order) })}
          />
        </div>
        <div className="row" style={{ alignItems: 'end' }}>
          <small className="quiet">
            Error falls with the root of the rays. A response is to last a third longer than the room rings,
            for T30. Ways by mirrors arrive to the sample; rays bring everything else, in steps of 1 ms.
          </small>
          <Button
            size="compact-xs"
            variant="default"
            style={{ flexShrink: 0 }}
            disabled={Object.keys(own).length === 0}
            onClick={() => onChange({})}
          >
            As suggested
          </Button>
        </div>
      </div>
    </details>
  );
}
