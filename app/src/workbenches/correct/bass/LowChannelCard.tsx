import { Button, Checkbox } from '@mantine/core';
import type { BassFeed } from '@pebble-hall/core/processing';
import { formatDb } from '../../../charts/chartMath';
import { lowInput } from '@pebble-hall/core/project';
import { theProcessor } from '../../../services/theProcessor';
import { NumberField } from '../../../parts/NumberField';
import { sentenceOf } from '../../../store';
import { mainOf, type BassPageProps } from './bassProps';
import { CrossoverRow } from '../../../parts/CrossoverRow';

/** What the trade asks of a low-frequency channel: louder than a full-range one in its band by so much. */
const LOW_ABOVE_DB = 10;
const STARTING_LOW: BassFeed = { gainDb: 0, lowPass: { kind: 'Linkwitz-Riley', order: 4, frequency: 120 } };

/** The channel that plays on the subwoofers alone: whether there is one, how high it reaches, how loud it is. */
export function LowChannelCard(props: BassPageProps) {
  const { project, correction, reading, onEdit } = props;
  const { lowChannel: low } = correction;
  const main = mainOf(props);
  let input: number | null = null;
  let none: string | null = null;
  try {
    input = lowInput(project, theProcessor().profile.outputs);
  } catch (error) {
    none = sentenceOf(error);
  }
  const above = reading?.lowAboveDb ?? null;
  return (
    <section className="card" aria-label="Low-frequency channel">
      <h2>
        Low-frequency channel
        <Button
          size="compact-xs"
          variant="default"
          disabled={!low || above === null}
          onClick={() =>
            onEdit(`low-frequency channel ${LOW_ABOVE_DB} dB above ${main.name}`, {
              lowChannel: { ...low!, gainDb: Math.round(10 * (low!.gainDb + LOW_ABOVE_DB - above!)) / 10 },
            })
          }
        >
          {LOW_ABOVE_DB} dB above {main.name}
        </Button>
      </h2>
      <Checkbox
        size="xs"
        label={input === null ? 'no input is free' : `input ${input} plays on the subwoofers alone`}
        disabled={input === null}
        checked={low !== null}
        onChange={(e) =>
          onEdit(e.currentTarget.checked ? 'low-frequency channel' : 'no low-frequency channel', {
            lowChannel: e.currentTarget.checked ? STARTING_LOW : null,
          })
        }
      />
      {low ? (
        <>
          <CrossoverRow
            name="Low-pass"
            label="Low-frequency channel low-pass"
            value={low.lowPass}
            onChange={(lowPass) =>
              onEdit('low-pass of the low-frequency channel', { lowChannel: { ...low, lowPass } })
            }
          />
          <div className="row">
            <span>Gain</span>
            <NumberField
              label="Low-frequency channel gain"
              value={low.gainDb}
              unit="dB"
              min={-40}
              max={20}
              step={0.1}
              width={92}
              onChange={(gainDb) =>
                onEdit(`low-frequency channel ${gainDb} dB`, { lowChannel: { ...low, gainDb } })
              }
            />
          </div>
        </>
      ) : null}
      <small className={none ? 'attention' : 'quiet'}>
        {none ??
          (low && above !== null
            ? `${formatDb(above)} against ${main.name}, 30 to 80 Hz, mean over the spots. What its gain costs all channels in headroom, the guard takes.`
            : 'For sound tracks that carry one; music needs none.')}
      </small>
    </section>
  );
}
