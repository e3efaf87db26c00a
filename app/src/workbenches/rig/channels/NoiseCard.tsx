import type { Project } from '@pebble-hall/core/project';
import { weightingDb } from '@pebble-hall/core/level';
import { splOffsetDb } from '../../../services/theRig';
import { noiseSentence } from '../../../words/noiseSentence';

/** The noise of the room in words. */
export function NoiseCard({ project }: { project: Project }) {
  const { noise } = project.rig;
  if (!noise) {
    return (
      <section className="card" aria-label="Noise of the room">
        <h2>Noise of the room</h2>
        <span className="quiet">Not heard yet. Listen to the room while nobody speaks.</span>
      </section>
    );
  }
  const offset = splOffsetDb(project);
  const total = noise.bands.reduce(
    (sum, { centre, noiseDb }) => sum + 10 ** ((noiseDb + weightingDb('A', centre)) / 10),
    0,
  );
  const level = 10 * Math.log10(total) + (offset ?? 0);
  return (
    <section className="card" aria-label="Noise of the room" style={{ overflow: 'auto' }}>
      <h2>
        Noise of the room{' '}
        <small>
          {level.toFixed(0).replace('-', '\u2212')} {offset === null ? 'dB(A) re full scale' : 'dB(A)'}
        </small>
      </h2>
      {noise.traits.length === 0 ? (
        <span>Nothing stands out of it.</span>
      ) : (
        noise.traits.map((trait, i) => (
          <span key={i} className={trait.kind === 'rumble' ? '' : 'attention'}>
            {noiseSentence(trait)}
          </span>
        ))
      )}
      <span className="quiet">
        Heard {new Date(noise.takenAt).toLocaleTimeString([], { timeStyle: 'short' })}
      </span>
    </section>
  );
}
