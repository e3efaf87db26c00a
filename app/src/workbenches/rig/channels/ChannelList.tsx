import { findingSentence } from '../../../words/channelFindings';
import { ActionIcon, Switch } from '@mantine/core';
import { AIM_DB } from '@pebble-hall/core/measure';
import {
  type Loudspeaker,
  type Project,
  channelFindings,
  untellable,
  type Finding,
  fittedOf,
  marginNow,
  TELLING_DBFS,
} from '@pebble-hall/core/project';
import { IconPlayerPlay } from '../../../icons';
import { marginSentence } from '../../../words/sweepReasons';
import type { Change } from '../../../services/changeProject';
import { SharedOutputHelper } from './SharedOutputHelper';
import type { Guarded } from '../useGuarded';

interface ChannelListProps {
  project: Project;
  change: Change;
  chosen: string | null;
  onChoose: (id: string) => void;
  playing: string | null;
  onCheck: (id: string) => void;
  guarded: Guarded;
  busy: boolean;
}

/** One line per output: is it there, is it the one it claims to be, and is it loud enough, by how many dB. */
export function ChannelList({
  project,
  change,
  chosen,
  onChoose,
  playing,
  onCheck,
  guarded,
  busy,
}: ChannelListProps) {
  const set = (l: Loudspeaker, next: Partial<Loudspeaker>, label: string) =>
    void change(label, (p) => ({
      ...p,
      place: {
        ...p.place,
        loudspeakers: p.place.loudspeakers.map((other) =>
          other.id === l.id ? { ...other, ...next } : other,
        ),
      },
    }));
  const findings = channelFindings(project);
  const sharing = fittedOf(project).filter((l) => findings.get(l.id)!.some((f) => f.kind === 'shared'));
  return (
    <section className="notes" aria-label="Channels" style={{ gap: 4, flex: 1 }}>
      {project.place.loudspeakers.map((l) => (
        <div
          key={l.id}
          className="card"
          role="group"
          aria-label={l.name}
          style={{
            padding: '1px 10px 2px',
            gap: 0,
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
                onChange={(event) => {
                  const fitted = event.currentTarget.checked;
                  set(l, { fitted }, `${l.name} ${fitted ? 'fitted' : 'not fitted'}`);
                }}
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
            findings={findings.get(l.id) ?? []}
            playing={playing === l.id}
            onNotFitted={() => set(l, { fitted: false }, `${l.name} not fitted`)}
            onShares={(output) => set(l, { output }, `${l.name} on output ${output}`)}
          />
        </div>
      ))}
      {sharing.length > 1 ? (
        <SharedOutputHelper
          project={project}
          change={change}
          guarded={guarded}
          busy={busy}
          sharing={sharing}
        />
      ) : null}
      <p className="quiet" style={{ margin: 0, fontSize: 12.5, lineHeight: 1.3 }}>
        Channels need not be equally loud; only the margin over the noise matters. {summary(project)}{' '}
        {cannotTell(project)}
      </p>
    </section>
  );
}

interface VerdictProps {
  project: Project;
  loudspeaker: Loudspeaker;
  findings: Finding[];
  playing: boolean;
  onNotFitted: () => void;
  onShares: (output: number) => void;
}

function Verdict({ project, loudspeaker, findings, playing, onNotFitted, onShares }: VerdictProps) {
  if (playing) return <span className="good">a short sweep is playing …</span>;
  if (!loudspeaker.fitted) return <span className="quiet">left out</span>;
  const silent = findings.find((f) => f.kind === 'silent');
  const playedDbfs = project.rig.checks[loudspeaker.id]?.levelDbfs ?? 0;
  if (silent && playedDbfs < TELLING_DBFS)
    return (
      <span className="attention">
        Nothing arrived at {String(playedDbfs).replace('-', '\u2212')} dBFS: raise the level, then check it
        again.
      </span>
    );
  if (silent) {
    return (
      <span className="attention">
        Nothing arrived.{' '}
        <button className="linkish" onClick={onNotFitted}>
          Not fitted?
        </button>
        {silent.perhapsOn ? (
          <>
            {' '}
            <button className="linkish" onClick={() => onShares(silent.perhapsOn!.output)}>
              On the output of {silent.perhapsOn.name}?
            </button>
          </>
        ) : null}
      </span>
    );
  }
  const sentences = findings.map(findingSentence).join('; ');
  const check = project.rig.checks[loudspeaker.id];
  const margin = marginNow(project, loudspeaker.id);
  if (sentences) return <span className="attention">{sentences}</span>;
  if (!check || margin === null) return <span className="quiet">not checked yet</span>;
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

/** What the check cannot find, said openly. */
function cannotTell(project: Project): string {
  if (Object.keys(project.rig.checks).length === 0) return '';
  const pairs = untellable(project);
  if (pairs.length === 0) return '';
  const { a, b, metres } = pairs[0]!;
  const [first, second] = metres.map((m) => m.toFixed(2));
  return `${a} and ${b} stand too nearly equally far from the home spot (${first} and ${second} m) to be told apart, so an exchange of their cables cannot be heard: have their names spoken under Connect.`;
}
