import { Button } from '@mantine/core';
import type { Crossovers } from '@pebble-hall/core/project';
import { mainOf, mainsOf, subsOf, type BassPageProps } from './bassProps';
import { CrossoverRow } from '../../../parts/CrossoverRow';

/** Which lows a channel keeps, which it sends to the subwoofers, and what those play of it. */
export function CrossoverCard(props: BassPageProps) {
  const { project, correction, mainId, reading, problem, onEdit } = props;
  const main = mainOf(props);
  const now = reading?.setting;
  const setMany = (label: string, ids: string[], next: Crossovers) =>
    onEdit(label, ({ crossovers }) => ({
      crossovers: { ...crossovers, ...Object.fromEntries(ids.map((id) => [id, next])) },
    }));
  return (
    <section className="card" aria-label="Crossover">
      <h2>
        Crossover of {main.name}
        <span style={{ display: 'flex', gap: 6 }}>
          <Button
            size="compact-xs"
            variant="default"
            disabled={!reading?.sent}
            onClick={() =>
              setMany(
                'one crossover for all full-range channels',
                mainsOf(project).map((l) => l.id),
                { highPass: now!.highPass, lowPass: now!.lowPass },
              )
            }
          >
            For all channels
          </Button>
          <Button
            size="compact-xs"
            variant="default"
            disabled={Object.keys(correction.crossovers).length === 0}
            onClick={() => onEdit('crossovers as the processor has them', { crossovers: {} })}
          >
            The processor’s own
          </Button>
        </span>
      </h2>
      {now ? (
        <>
          <CrossoverRow
            name="Channel high-pass"
            value={now.highPass}
            onChange={(highPass) =>
              setMany(`high-pass of ${main.name}`, [mainId], { highPass, lowPass: now.lowPass })
            }
          />
          <CrossoverRow
            name="Its bass, low-pass"
            value={now.lowPass}
            onChange={(lowPass) =>
              setMany(`low-pass of the bass of ${main.name}`, [mainId], { highPass: now.highPass, lowPass })
            }
          />
          <CrossoverRow
            name="Subwoofers’ own low-pass"
            value={reading.subsOwn}
            onChange={(lowPass) =>
              setMany(
                'low-pass of the subwoofers',
                subsOf(project).map((l) => l.id),
                { highPass: null, lowPass },
              )
            }
          />
        </>
      ) : (
        <span className={problem ? 'attention' : 'quiet'} role={problem ? 'alert' : undefined}>
          {problem ?? 'Reading …'}
        </span>
      )}
      <small className="quiet">
        {reading && !reading.sent
          ? `${main.name} keeps all its bass. With a high-pass, what it gives up goes to the subwoofers.`
          : 'What the channel gives up goes to the subwoofers, in the processor.'}
      </small>
    </section>
  );
}
