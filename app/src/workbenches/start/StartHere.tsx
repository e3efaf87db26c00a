import { Button } from '@mantine/core';
import { type Project, isSpotTaken } from '@pebble-hall/core/project';
import { Note } from '../../parts/Note';
import { stonesOf } from '../../words/workbenchStatus';
import { PlaceDrawing } from '../../drawing';

const STEPS: { path: string; title: string; text: string }[] = [
  {
    path: '/plan',
    title: 'Plan',
    text: 'Say how large the place is, who sits where, and what plays.',
  },
  {
    path: '/room-model',
    title: 'Room model',
    text: 'Say what its surfaces are made of; see how long it rings, how speech will sound, and what echoes.',
  },
  {
    path: '/rig',
    title: 'Rig',
    text: 'Hear how loud the room is, raise the level until every loudspeaker stands 30 dB above it.',
  },
  {
    path: '/mic-walk',
    title: 'Mic walk',
    text: 'Sweep every loudspeaker at the home spot and at two or more around it.',
  },
  {
    path: '/live',
    title: 'Live',
    text: 'Watch a transfer function or a spectrum while something is moved or turned; keep what matters.',
  },
  {
    path: '/traces',
    title: 'Traces',
    text: 'See what the room does: peaks and dips, what rings, how clear it is; compute with what was kept.',
  },
  {
    path: '/align',
    title: 'Align',
    text: 'Bring a subwoofer to its main, a fill to the mains: in time, the right way round, at every spot.',
  },
  {
    path: '/correct',
    title: 'Correct',
    text: 'Draw the target, choose where and how much, see what each seat would get.',
  },
  {
    path: '/listen',
    title: 'Listen',
    text: 'Hear it as found and corrected at equal loudness, blind if you like.',
  },
  {
    path: '/hand-over',
    title: 'Hand over',
    text: 'Load a memory of the processor, measure again, compare with the prediction.',
  },
];

/** First page: the place, and what to do next in it. */
export default function StartHere({ project }: { project: Project }) {
  const stones = stonesOf(project);
  // one looks and listens at any time, that is never done: the button leads to what must be done
  const atAnyTime = ['Room model', 'Live', 'Traces', 'Align', 'Listen'];
  const next = stones.find((s) => !atAnyTime.includes(s.name) && s.state !== 'done') ?? stones.at(-1)!;
  return (
    <div className="work" style={{ gridTemplateColumns: 'minmax(0, 1fr) 400px', height: '100%' }}>
      <div className="plot" style={{ padding: 12 }}>
        <PlaceDrawing
          place={project.place}
          stateOf={(id) =>
            isSpotTaken(
              project,
              project.place.spots.find((s) => s.id === id)!,
            )
              ? 'taken'
              : 'empty'
          }
        />
      </div>
      <section className="notes" aria-label="Start here" style={{ gap: 8, padding: '6px 4px' }}>
        <h1 style={{ margin: 0, fontSize: 24 }}>Start here</h1>
        <p style={{ margin: 0 }}>
          {placeWords(project)} Measure it, correct it, hand the correction over, and see by measuring again
          whether it came true.
          {project.rig.kind === 'simulated'
            ? ' Room, interface, microphone and processor are simulated and ship with Pebble Hall; every number comes from what is measured in them.'
            : ''}
        </p>
        <div>
          <Button component="a" href={next.path} size="md">
            {next.state === 'empty' ? `Begin with ${next.name}` : `Go on with ${next.name}`}
          </Button>
        </div>
        {STEPS.map(({ path, title, text }, i) => {
          const stone = stones.find((s) => s.path === path)!;
          return (
            <Note key={path} number={i + 1} attention={stone.state === 'look again'}>
              <a className="linkish" href={path}>
                {title}
              </a>
              . {text} <span className="quiet">({stone.evidence})</span>
            </Note>
          );
        })}
        <p className="quiet" style={{ margin: 0 }}>
          Everything is stored in this browser as it is measured. A project file, from the menu at the top,
          holds all of it.
        </p>
      </section>
    </div>
  );
}

/** What kind of place it is, and what plays in it. */
function placeWords({ place }: Project): string {
  const fitted = place.loudspeakers.filter((l) => l.fitted);
  const subs = fitted.filter((l) => l.role === 'subwoofer').length;
  const full = fitted.length - subs;
  const count = (n: number, one: string) => (n === 1 ? `1 ${one}` : `${n} ${one}s`);
  const plays = [
    full > 0 ? count(full, 'full-range channel') : '',
    subs > 0 ? count(subs, 'subwoofer') : '',
  ].filter(Boolean);
  const kind = place.kind === 'open air' ? 'An open-air place' : `A ${place.kind}`;
  return plays.length > 0 ? `${kind} with ${plays.join(' and ')}.` : `${kind}, still without loudspeakers.`;
}
