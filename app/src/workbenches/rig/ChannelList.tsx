import { ActionIcon, Switch } from '@mantine/core';
import { AIM_DB } from '@pebble-hall/core/measure';
import type { Loudspeaker, Project } from '@pebble-hall/core/project';
import { IconPlayerPlay } from '@tabler/icons-react';
import { fittedOf, marginNow } from '../../parts/progress';
import { marginSentence, reasonSentence } from '../../parts/sentences';
import type { Change } from '../../parts/useChange';

interface ChannelListProps {
  project: Project;
  change: Change;
  chosen: string | null;
  onChoose: (id: string) => void;
  playing: string | null;
  onCheck: (id: string) => void;
  busy: boolean;
}

/** One line per output: is it there, and is it loud enough, by how many dB. */
export function ChannelList({ project, change, chosen, onChoose, playing, onCheck, busy }: ChannelListProps) {
  const fit = (id: string, fitted: boolean, name: string) =>
    change(`${name} ${fitted ? 'fitted' : 'not fitted'}`, (p) => ({
      ...p,
      place: {
        ...p.place,
        loudspeakers: p.place.loudspeakers.map((l) => (l.id === id ? { ...l, fitted } : l)),
      },
    }));
  return (
    <section className="notes" aria-label="Channels" style={{ gap: 5 }}>
      <h2>What each channel says</h2>
      {project.place.loudspeakers.map((l) => (
        <div
          key={l.id}
          className="card"
          style={{
            padding: '3px 10px 4px',
            gap: 1,
            flexShrink: 0,
            borderColor: chosen === l.id ? 'var(--ink)' : undefined,
            opacity: l.fitted ? 1 : 0.6,
          }}
        >
          <div className="row">
            <button
              className="linkish"
              style={{ color: 'var(--ink)', textDecoration: 'none' }}
              onClick={() => onChoose(l.id)}
              aria-pressed={chosen === l.id}
            >
              {l.name}{' '}
              <small className="quiet">
                {l.model}, output {l.output}
              </small>
            </button>
            <span style={{ display: 'flex', gap: 8, alignItems: 'center' }}>
              <Switch
                size="xs"
                label="fitted"
                aria-label={`${l.name} fitted`}
                checked={l.fitted}
                onChange={(event) => void fit(l.id, event.currentTarget.checked, l.name)}
              />
              <ActionIcon
                size="sm"
                variant="default"
                aria-label={`Check ${l.name}`}
                disabled={busy || !l.fitted}
                onClick={() => onCheck(l.id)}
              >
                <IconPlayerPlay size={13} />
              </ActionIcon>
            </span>
          </div>
          <Verdict
            project={project}
            loudspeaker={l}
            playing={playing === l.id}
            onNotFitted={() => void fit(l.id, false, l.name)}
          />
        </div>
      ))}
      <p className="quiet" style={{ margin: 0, fontSize: 12.5 }}>
        Channels need not be equally loud; only the margin over the noise matters. {summary(project)}
      </p>
    </section>
  );
}

function Verdict({
  project,
  loudspeaker,
  playing,
  onNotFitted,
}: {
  project: Project;
  loudspeaker: Loudspeaker;
  playing: boolean;
  onNotFitted: () => void;
}) {
  if (playing) return <span className="good">a short sweep is playing …</span>;
  if (!loudspeaker.fitted) return <span className="quiet">left out</span>;
  const check = project.rig.checks[loudspeaker.id];
  const margin = marginNow(project, loudspeaker.id);
  if (!check || margin === null) return <span className="quiet">not checked yet</span>;
  if (check.verdict.reasons.some((r) => r.kind === 'silent')) {
    return (
      <span className="attention">
        Nothing arrived.{' '}
        <button className="linkish" onClick={onNotFitted}>
          Not fitted?
        </button>
      </span>
    );
  }
  const other = check.verdict.reasons.find((r) => r.kind !== 'near noise');
  if (other) return <span className="attention">{reasonSentence(other)}</span>;
  const share = Math.max(0, Math.min(1, margin / 60));
  return (
    <span style={{ display: 'flex', alignItems: 'center', gap: 8, fontSize: 12.5 }}>
      <svg
        width="72"
        height="7"
        aria-hidden="true"
        preserveAspectRatio="none"
        viewBox="0 0 100 7"
        style={{ flexShrink: 0 }}
      >
        <rect y={2} width={100} height={3} rx={1.5} fill="var(--line)" />
        <rect
          y={2}
          width={100 * share}
          height={3}
          rx={1.5}
          fill={margin >= AIM_DB ? 'var(--kelp)' : 'var(--trace-buoy)'}
        />
        <rect x={(100 * AIM_DB) / 60} y={0} width={0.6} height={7} fill="var(--ink)" />
      </svg>
      <span className={margin >= AIM_DB ? 'good' : 'attention'}>{marginSentence(margin)}</span>
    </span>
  );
}

function summary(project: Project): string {
  const margins = fittedOf(project)
    .map((l) => marginNow(project, l.id))
    .filter((m): m is number => m !== null && Number.isFinite(m));
  if (margins.length === 0) return '';
  const short = margins.filter((m) => m < AIM_DB).length;
  return short === 0
    ? 'All that were checked reach 30 dB.'
    : `${short} of ${margins.length} stay short of 30 dB.`;
}
