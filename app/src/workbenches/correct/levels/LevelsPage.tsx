import { ActionIcon, Button, Checkbox } from '@mantine/core';
import {
  suggestedAlignment,
  takeLevels,
  type Alignment,
  type Correction,
  type Project,
  loudspeakerName,
} from '@pebble-hall/core/project';
import { IconX } from '../../../icons';
import { omit } from 'es-toolkit';
import { projectNow } from '../../../store';
import { speedOfSound } from '@pebble-hall/core/room';
import { formatDb } from '../../../charts/chartMath';
import { NumberField } from '../../../parts/NumberField';
import { allPassWords } from '../../../words/alignWords';
import { TableMenu } from '../../../parts/TableMenu';
import { alignTable, PLAIN } from './alignTable';
import type { Edit } from '../useCorrection';
import type { HomeReading } from './useAtHome';

interface AlignPageProps {
  project: Project;
  correction: Correction;
  reading: HomeReading | null;
  problem: string | null;
  onEdit: Edit;
}

/** Levels and delays of all channels from the home spot, with the reason, in ms, metres and dB; each can be changed. */
export function AlignPage({ project, correction, reading, problem, onEdit }: AlignPageProps) {
  const { alignment, allPasses } = correction;
  const anyTurns = Object.keys(allPasses).length > 0;
  const speed = speedOfSound(project.place.temperatureC);
  const nameOf = (id: string) => loudspeakerName(project.place, id);
  const set = (id: string, label: string, next: Partial<Alignment>) =>
    onEdit(label, ({ alignment: now }) => ({
      alignment: { ...now, [id]: { ...PLAIN, ...now[id], ...next } },
    }));
  const take = () =>
    onEdit('levels and delays from the home spot', (now) =>
      takeLevels(projectNow(), now, reading!.suggested),
    );
  const suggested = reading && suggestedAlignment(project, correction, reading.suggested);
  const first = reading?.suggested[0];
  return (
    <section className="card" aria-label="Levels and delays" style={{ gridColumn: '1 / -1' }}>
      <h2>
        <span>
          Levels and delays{' '}
          <small>
            {first
              ? `at the home spot, after the filters: all are brought to ${nameOf(first.quietestId)}, the quietest, delayed to match ${first.latestId ? nameOf(first.latestId) : 'none'}, the latest`
              : ''}
          </small>
        </span>
        <span style={{ display: 'flex', gap: 6 }}>
          {reading ? (
            <TableMenu table={() => alignTable(reading.channels, suggested!, alignment, speed, nameOf)} />
          ) : null}
          <Button size="compact-xs" variant="filled" disabled={!reading} onClick={take}>
            Apply
          </Button>
          <Button
            size="compact-xs"
            variant="default"
            disabled={Object.keys(alignment).length === 0}
            onClick={() =>
              onEdit('the processor’s settings kept', ({ madeFrom }) => ({
                alignment: {},
                madeFrom: { ...madeFrom, levels: null },
              }))
            }
          >
            Keep the processor’s settings
          </Button>
        </span>
      </h2>
      {problem ? (
        <span role="alert" className="attention">
          {problem}
        </span>
      ) : null}
      {!reading && !problem ? <span className="quiet">Follows when the filters are made …</span> : null}
      {reading ? (
        <div style={{ overflow: 'auto', maxHeight: 214 }}>
          <table className="plain tight">
            <thead>
              <tr>
                <th>Channel</th>
                <th className="num">Level against target</th>
                <th className="num">Arrives</th>
                <th className="num">Suggested</th>
                <th>Trim</th>
                <th>Delay</th>
                <th className="num">as distance</th>
                <th>Polarity</th>
                {anyTurns ? <th>All-passes, from Align</th> : null}
              </tr>
            </thead>
            <tbody>
              {reading.channels.map((c) => {
                const s = suggested![c.id] ?? PLAIN;
                const now = alignment[c.id] ?? PLAIN;
                return (
                  <tr key={c.id}>
                    <td>{nameOf(c.id)}</td>
                    <td className="num mono">{formatDb(c.levelDb)}</td>
                    <td className="num mono">
                      {c.arrivalS === null
                        ? 'not known'
                        : `${(1000 * (c.arrivalS + c.latencyS)).toFixed(2)} ms`}
                    </td>
                    <td className="num mono">
                      {formatDb(s.trimDb)}, {s.delayMs.toFixed(2)} ms
                    </td>
                    <td>
                      <NumberField
                        label={`Trim of ${nameOf(c.id)}`}
                        value={now.trimDb}
                        unit="dB"
                        min={-40}
                        max={12}
                        step={0.1}
                        width={84}
                        onChange={(trimDb) => set(c.id, `trim of ${nameOf(c.id)} ${trimDb} dB`, { trimDb })}
                      />
                    </td>
                    <td>
                      <NumberField
                        label={`Delay of ${nameOf(c.id)}`}
                        value={now.delayMs}
                        unit="ms"
                        min={0}
                        max={400}
                        step={0.01}
                        digits={2}
                        width={92}
                        onChange={(delayMs) =>
                          set(c.id, `delay of ${nameOf(c.id)} ${delayMs} ms`, { delayMs })
                        }
                      />
                    </td>
                    <td className="num mono">{((now.delayMs / 1000) * speed).toFixed(2)} m</td>
                    <td>
                      <Checkbox
                        size="xs"
                        label="inverted"
                        aria-label={`Polarity of ${nameOf(c.id)} inverted`}
                        checked={now.inverted}
                        onChange={(e) =>
                          set(c.id, `polarity of ${nameOf(c.id)}`, { inverted: e.currentTarget.checked })
                        }
                      />
                    </td>
                    {anyTurns ? (
                      <td>
                        {allPasses[c.id] ? (
                          <span className="row" style={{ gap: 4 }}>
                            {allPasses[c.id]!.map(allPassWords).join(', ')}
                            <ActionIcon
                              size="sm"
                              variant="subtle"
                              color="gray"
                              aria-label={`Take away the all-passes of ${nameOf(c.id)}`}
                              onClick={() =>
                                onEdit(`all-passes of ${nameOf(c.id)} taken away`, ({ allPasses: now }) => ({
                                  allPasses: omit(now, [c.id]),
                                }))
                              }
                            >
                              <IconX size={14} />
                            </ActionIcon>
                          </span>
                        ) : null}
                      </td>
                    ) : null}
                  </tr>
                );
              })}
            </tbody>
          </table>
        </div>
      ) : null}
    </section>
  );
}
