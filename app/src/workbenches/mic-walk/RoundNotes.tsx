import {
  type Loudspeaker,
  type Project,
  type Spot,
  type Sweep,
  staleSweeps,
  movedSpots,
  oddSweeps,
  fittedOf,
  isSpotTaken,
  sweepOf,
  levelAdvice,
  roundFindings,
  roundNoise,
  loudspeakerById,
} from '@pebble-hall/core/project';
import { useMemo, type ReactNode } from 'react';
import { Note } from '../../parts/Note';
import { changeProject } from '../../services/changeProject';
import { rigName } from '../../services/theRig';
import { noiseSentence } from '../../words/noiseSentence';
import { roundFindingSentence } from '../../words/roundFindings';
import { reasonSentence } from '../../words/sweepReasons';
import { groundPlaneText } from './groundPlaneText';
import { useAverageMovement } from './useAverageMovement';
import type { KnockedSpot } from './useKnocked';
import type { Walk } from './useWalk';
import { placesFrom, walkingMicrophones } from '../../services/walkJobs';

interface RoundNotesProps {
  project: Project;
  /** the spot at hand */
  spot: Spot;
  walk: Walk;
  knocked: KnockedSpot[];
  onNewRound: () => void;
}

interface Said {
  key: string;
  attention: boolean;
  text: ReactNode;
  /** what can be done about it, and its word */
  repeat?: { word: string; sweeps: Pick<Sweep, 'spotId' | 'loudspeakerId'>[] };
}

/** What the round says: what is wrong with single sweeps and with whole spots, and how far it is. */
export function RoundNotes({ project, spot, walk, knocked, onNewRound }: RoundNotesProps) {
  const movement = useAverageMovement(project);
  const troubles = useMemo(() => troublesOf(project, knocked), [project, knocked]);
  const stale = useMemo(() => staleSweeps(project, rigName(project)), [project]);
  const busy = walk.now !== null;
  const link = (word: string, onClick: () => void) => (
    <button className="linkish" disabled={busy} onClick={onClick}>
      {word}
    </button>
  );
  const said: Said[] = [
    ...levelNotes(project, link),
    ...troubles,
    ...stale.map(({ text, sweeps }) => ({
      key: text,
      attention: true,
      text: (
        <>
          {sweeps.length === 1 ? '1 sweep no longer belongs' : `${sweeps.length} sweeps no longer belong`} to
          the plan: {text}. Repeat {sweeps.length === 1 ? 'it' : 'them'}, or{' '}
          {link('begin a new round', onNewRound)} and keep this one for comparison.
        </>
      ),
    })),
    {
      key: 'round',
      attention: false,
      text: busy ? 'The round is under way; every sweep is stored as it is taken.' : roundSentence(project),
    },
    ...(movement && !busy ? [{ key: 'movement', attention: false, text: movementSentence(movement) }] : []),
    ...(walkingMicrophones(project).length > 1
      ? [{ key: 'microphones', attention: false, text: microphonesSentence(project, spot) }]
      : []),
    ...(spot.surface === 'ground plane'
      ? [{ key: 'floor', attention: false, text: groundPlaneText(project, spot) }]
      : []),
  ];
  return said.map(({ key, attention, text, repeat }, i) => (
    <Note key={key} number={i + 1} attention={attention}>
      {text}
      {repeat ? <> {link(repeat.word, () => void walk.takeThese(repeat.sweeps))}</> : null}
    </Note>
  ));
}

/** Before the first sweep: whether channels will stand clear of the noise, and the level that would see to it. */
function levelNotes(project: Project, link: (word: string, onClick: () => void) => ReactNode): Said[] {
  if (project.sweeps.some((s) => s.roundId === project.roundId)) return [];
  const { levelDbfs } = project.rig;
  const advice = levelAdvice(project);
  if (!advice)
    return [
      {
        key: 'level',
        attention: true,
        text: (
          <>
            No level has been set yet. Check the channels in{' '}
            <a className="linkish" href="/rig">
              Rig
            </a>{' '}
            first: at {minus(levelDbfs)} dBFS they may stand too near the noise.
          </>
        ),
      },
    ];
  const { weakest, suggestedDbfs } = advice;
  if (suggestedDbfs <= levelDbfs) return [];
  const set = () =>
    void changeProject(`test level ${suggestedDbfs} dBFS`, (p) => ({
      ...p,
      rig: { ...p.rig, levelDbfs: suggestedDbfs },
    }));
  return [
    {
      key: 'level',
      attention: true,
      text: (
        <>
          At {minus(levelDbfs)} dBFS the weakest channel, {weakest.name}, stands only about{' '}
          {Math.round(weakest.snrDb)} dB above the noise. {link(`Set ${minus(suggestedDbfs)} dBFS`, set)}
        </>
      ),
    },
  ];
}

const minus = (value: number) => String(value).replace('-', '\u2212');

/** What is wrong: with single sweeps by themselves, with some against the others, with a microphone that was moved. */
function troublesOf(project: Project, knocked: KnockedSpot[]): Said[] {
  const { spots, loudspeakers } = project.place;
  const spotName = (id: string) => spots.find((s) => s.id === id)?.name ?? '';
  const channel = (id: string) => loudspeakerById({ loudspeakers }, id)?.name ?? '';
  const again = (sweep: Sweep) => ({ word: 'Repeat this one', sweeps: [sweep] });
  const findings = roundFindings(project);
  const faults = findings.map((finding): Said => ({
    key: `fault ${finding.loudspeaker.id} ${finding.fault.kind}`,
    attention: true,
    text: `${finding.isEverywhere ? '' : `${finding.sweeps.map((s) => spotName(s.spotId)).join(', ')}, `}${finding.loudspeaker.name}: ${roundFindingSentence(finding)}.`,
    ...(finding.isEverywhere ? {} : { repeat: { word: 'Repeat', sweeps: finding.sweeps } }),
  }));
  /** what a channel does everywhere is not a sweep's fault: repeating it does not help */
  const isNoisy = (l: Loudspeaker) =>
    findings.some(
      (f) => f.loudspeaker.id === l.id && (f.fault.kind === 'distorted' || f.fault.kind === 'rattles'),
    );
  const isSilent = (l: Loudspeaker) =>
    findings.some((f) => f.loudspeaker.id === l.id && f.fault.kind === 'silent');
  const exchangedAt = (s: Spot) =>
    findings.some((f) => f.fault.kind === 'misfit' && f.sweeps.some((w) => w.spotId === s.id));
  const noise = roundNoise(project).map(({ trait, spots: at }): Said => ({
    key: `noise ${trait.kind}`,
    attention: trait.kind === 'hum',
    text: `${at.length === spots.length ? '' : `${at.map((s) => s.name).join(', ')}: `}${noiseSentence(trait)}`,
  }));
  const bad = spots.flatMap((s) =>
    fittedOf(project).flatMap((l): Said[] => {
      const sweep = sweepOf(project, s.id, l.id);
      if (!sweep || sweep.verdict.state === 'good') return [];
      const reasons = sweep.verdict.reasons.filter(
        (r) => !(r.kind === 'disturbed' && isNoisy(l)) && !(r.kind === 'silent' && isSilent(l)),
      );
      if (reasons.length === 0) return [];
      const why = reasons.map(reasonSentence).join('; ');
      return [
        { key: sweep.id, attention: true, text: `${s.name}, ${l.name}: ${why}.`, repeat: again(sweep) },
      ];
    }),
  );
  const odd = oddSweeps(project).map(({ sweep, kind, by }): Said => {
    const how =
      kind === 'quieter'
        ? `${by.toFixed(0)} dB quieter than at the other spots; see what stands in its way`
        : `${by.toFixed(1)} ms later than the other spots let expect; see whether the microphone stands where the plan has it`;
    return {
      key: `odd ${sweep.id}`,
      attention: true,
      text: `${spotName(sweep.spotId)}, ${channel(sweep.loudspeakerId)}: ${how}.`,
      repeat: again(sweep),
    };
  });
  const clicked = knocked.map(({ spot, sweeps }): Said => ({
    key: `knocked ${spot.id}`,
    attention: true,
    text: `${spot.name}: the reference click sounds different from ${channel(sweeps[0]!.loudspeakerId)} on, so the microphone was moved.`,
    repeat: { word: 'Repeat from there', sweeps },
  }));
  const moved = movedSpots(project)
    // exchanged outputs look like another place of the microphone
    .filter((m) => !knocked.some((k) => k.spot.id === m.spot.id) && !exchangedAt(m.spot))
    .map(({ spot, sweeps, byM }): Said => ({
      key: `moved ${spot.id}`,
      attention: true,
      text: `${spot.name}: the arrivals do not fit one place. From ${channel(sweeps[0]!.loudspeakerId)} on, the microphone stood about ${Math.max(1, Math.round(100 * byM))} cm elsewhere.`,
      repeat: { word: 'Repeat from there', sweeps },
    }));
  return [...faults, ...bad, ...odd, ...clicked, ...moved, ...noise];
}

/** Which microphone goes where for the next play. */
function microphonesSentence(project: Project, spot: Spot): string {
  const at = placesFrom(project, spot.id).map(({ spotId, microphoneId }) => {
    const m = project.rig.microphones.find((one) => one.id === microphoneId)!;
    const name = project.place.spots.find((s) => s.id === spotId)!.name;
    return `${`${m.make} ${m.serial}`.trim()}, input ${m.input}, at ${name}`;
  });
  return `One play serves all microphones: ${at.join('; ')}.`;
}

/** Below this, another spot changes little that one could hear. */
const SETTLED_DB = 0.7;

function movementSentence({
  meanDb,
  mostDb,
  spotName,
  channel,
}: NonNullable<ReturnType<typeof useAverageMovement>>) {
  const how = `Leaving one spot out moves the average of ${channel} by ${meanDb.toFixed(1)} dB, ${spotName} by ${mostDb.toFixed(1)} dB`;
  return meanDb < SETTLED_DB
    ? `${how}: it is settled, another spot would change little.`
    : `${how}, the least settled channel: more spots would make it surer.`;
}

function roundSentence(project: Project): ReactNode {
  const { spots } = project.place;
  const taken = spots.filter((s) => isSpotTaken(project, s));
  const averaged = taken.filter((s) => s.inAverage).length;
  if (taken.length === 0) return 'Nothing is taken yet. Begin at the home spot: it sets level and delay.';
  if (!isSpotTaken(project, spots[0]!)) return 'The home spot is not complete: level and delay rest on it.';
  if (averaged < 3)
    return `${averaged} ${averaged === 1 ? 'spot is' : 'spots are'} in the average. Take three at least, or the correction fits one seat only.`;
  const judges = taken.length - averaged;
  return (
    <>
      {averaged} spots are in the average
      {judges > 0 ? `, ${judges} stays out of it to judge the result` : ''}. Enough to go on:{' '}
      <a className="linkish" href="/correct">
        Correct
      </a>
      .
    </>
  );
}
