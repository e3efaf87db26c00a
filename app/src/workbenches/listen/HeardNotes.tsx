import { Note } from '../../parts/Note';
import { loudnessWords, whereWords, type HeardWhere } from './heardWords';
import type { Heard } from './useListening';

interface HeardNotesProps {
  where: HeardWhere;
  /** how many candidates there are to switch between; null while a blind trial covers them */
  candidates: number | null;
  /** what was rendered last, if that is what is offered now; null otherwise, and while a blind trial is on */
  heard: Heard | null;
  matched: boolean;
  /** what is heard now with bass that the subwoofers would play, and of which channels; null where there is none */
  ownBass: { name: string; channels: string[] } | null;
  /** name of the listening chain in use */
  chain: string | null;
  problem: string | null;
  /** what is being done */
  work: string | null;
}

/** What is heard in words: the way of the sound, what was done to its loudness, and what must not be done with it. */
export function HeardNotes(props: HeardNotesProps) {
  const { where, candidates, heard, matched, ownBass, chain, problem, work } = props;
  return (
    <section className="notes" aria-label="What is heard, in words">
      <h2>
        What is heard {candidates === null ? null : <small>keys 1 to {candidates}, c: next chain</small>}
      </h2>
      <Note number={1}>{whereWords(where)}</Note>
      {ownBass ? (
        <p className="quiet" style={{ margin: 0 }}>
          {ownBass.name}: in the room the subwoofers play the bass of {ownBass.channels.join(' and ')}; here
          it is played with the rest.
        </p>
      ) : null}
      {heard ? (
        <Note
          number={2}
          small={matched ? 'ITU-R BS.1770-4; all are brought to the quietest' : undefined}
          attention={!matched}
        >
          {loudnessWords(
            heard.candidates.map((c) => c.name),
            heard.rendered,
            matched,
          )}
        </Note>
      ) : null}
      {chain ? (
        <Note number={3} attention>
          The chain {chain} is for monitoring only. It is on this page alone and must not be printed into a
          recording; to make a file with it, use Render a file below.
        </Note>
      ) : null}
      {problem ? (
        <p role="alert" className="attention">
          {problem}
        </p>
      ) : null}
      {work ? <span className="quiet">{work}</span> : null}
    </section>
  );
}
