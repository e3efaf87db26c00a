import { Button } from '@mantine/core';
import {
  delayForOffset,
  LEADS_DB,
  LEADS_S,
  louderPerOctave,
  notLed,
  OCTAVES,
  type HeardTwo,
} from '@pebble-hall/core/alignment';
import { distanceBetween, meanPoint } from '@pebble-hall/core/geometry';
import type { AlignSource, AlignStep, Project } from '@pebble-hall/core/project';
import type { LibraryCurve } from '@pebble-hall/core/traces';
import { useMemo, useState } from 'react';
import { formatHz } from '../../charts/chartMath';
import { lengthText } from '../../drawing';
import { NumberField } from '../../parts/NumberField';
import { channelsOf, type AlignedPoint } from '../../services/alignSources';
import { hasOrHave, heardWords } from '../../words/alignWords';
import { changeSource } from './changeAlign';

interface Props {
  project: Project;
  step: AlignStep;
  moved: AlignSource;
  /** what it follows, by name */
  still: string;
  points: readonly AlignedPoint[];
  /** at each point */
  heard: readonly HeardTwo[];
  /** index of the one that is shown */
  chosen: number;
  /** there: all the others together, and the moved one, as they are set */
  others: LibraryCurve;
  own: LibraryCurve;
}

const START_MS = 12;

/** From where it is heard: how much later a source comes than the others, and at how many seats these still lead. */
export function PrecedenceCard(props: Props) {
  const { project, step, moved, still, points, heard, chosen, others: followed, own } = props;
  const [offsetMs, setOffset] = useState(START_MS);
  const here = heard[chosen];
  const seats = points.map((point, i) => ({ point, why: notLed(heard[i]!) }));
  const led = seats.filter((s) => s.why === null).length;
  const { name: reference, metres } = furthestLed(project, step, seats);
  const louder = useMemo(() => louderPerOctave(followed, own), [followed, own]);
  const count = (why: string) => seats.filter((s) => s.why === why).length;
  const others = (
    [
      ['first', 'it comes before them or with them'],
      ['too late', `later than ${1000 * LEADS_S.to} ms`],
      ['too loud', `over ${LEADS_DB} dB louder`],
    ] as const
  )
    .filter(([why]) => count(why) > 0)
    .map(([why, said]) => `at ${count(why)} ${said}`);
  return (
    <section aria-label="Who is heard first" style={{ display: 'grid', gap: 6 }}>
      <h2>Who is heard first</h2>
      {here ? <span>{heardWords(moved.name, still, here, points[chosen]!.name)}</span> : null}
      <span className="quiet">
        At {led} of {seats.length} places the sound seems to come from {still}
        {others.length > 0 ? `; elsewhere ${others.join(', ')}` : ''}.
        {metres > 0
          ? ` The furthest of them is ${lengthText(metres, project.place.lengthUnit, 1)} from ${reference}.`
          : ''}{' '}
        By Haas 1951: {moved.name} {hasOrHave(moved.name)} to come {1000 * LEADS_S.from} to{' '}
        {1000 * LEADS_S.to} ms later and be no more than {LEADS_DB} dB louder, from 500 Hz to 4 kHz.
      </span>
      <table
        className="mono"
        aria-label={`Level of ${moved.name} over ${still} in octaves`}
        style={{ fontSize: 11, width: '100%', textAlign: 'right', borderSpacing: 0 }}
      >
        <caption className="quiet" style={{ textAlign: 'left' }}>
          Its level over {still} here, dB, by octave in Hz
        </caption>
        <tbody>
          <tr>
            {OCTAVES.map((hz) => (
              <th key={hz} scope="col" style={{ fontWeight: 400, color: 'var(--soft)' }}>
                {formatHz(hz).replace(' Hz', '').replace(' kHz', 'k')}
              </th>
            ))}
          </tr>
          <tr>
            {OCTAVES.map((hz, i) => (
              <td key={hz}>{Number.isFinite(louder[i]!) ? signed(louder[i]!) : '–'}</td>
            ))}
          </tr>
        </tbody>
      </table>
      <div className="row" style={{ gap: 6 }}>
        <NumberField
          label="Offset"
          value={offsetMs}
          unit="ms"
          digits={1}
          min={-100}
          max={100}
          step={1}
          width={84}
          onChange={setOffset}
        />
        <Button
          size="compact-xs"
          variant="default"
          disabled={!here || moved.id === step.referenceId}
          onClick={() =>
            here &&
            void changeSource(`${moved.name} ${offsetMs} ms after`, step.id, moved.id, {
              delayS: Number(delayForOffset(moved.delayS, here.laterS, offsetMs / 1000).toFixed(6)),
            })
          }
        >
          Come so much later here
        </Button>
      </div>
    </section>
  );
}

/** As many digits as matter: far apart nobody asks for tenths. */
const signed = (db: number) =>
  `${db > 0 ? '+' : ''}${db.toFixed(Math.abs(db) < 9.95 ? 1 : 0)}`.replace('-', '\u2212');

/** The place furthest from the time reference that it still leads at; 0 m where it leads nowhere, or stands nowhere in the plan. */
function furthestLed(
  project: Project,
  step: AlignStep,
  seats: readonly { point: AlignedPoint; why: string | null }[],
): { name: string; metres: number } {
  const reference = step.sources.find((s) => s.id === step.referenceId)!;
  const ids = new Set(channelsOf(project, reference));
  const boxes = project.place.loudspeakers.filter((l) => ids.has(l.id)).map((l) => l.position);
  const from = boxes.length > 0 ? meanPoint(boxes) : null;
  const far = seats.flatMap(({ point, why }) =>
    from && why === null && point.position ? [distanceBetween(from, point.position)] : [],
  );
  return { name: reference.name, metres: Math.max(0, ...far) };
}
