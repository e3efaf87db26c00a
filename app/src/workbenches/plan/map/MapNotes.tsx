import type { Place, PlaceProblem } from '@pebble-hall/core/project';
import { formatHz } from '../../../charts/chartMath';
import { lengthText } from '../../../drawing';
import { Note } from '../../../parts/Note';
import { listed } from '../../../words/listed';
import { placeProblemWords } from '../../../words/placeProblems';
import { EVEN_M } from './makeMaps';
import { levelWords } from './levelWords';
import type { LevelMap } from './useLevelMap';

const KIND_WORDS = { frequency: '', third: ', 1/3 octave', octave: ', octave', A: '' } as const;

interface MapNotesProps {
  map: LevelMap;
  place: Place;
  /** what is wrong with the place */
  problems: readonly PlaceProblem[];
}

/** The map read aloud. */
export function MapNotes({ map, place, problems }: MapNotesProps) {
  const { settings: s, maps, lines, zeroDb, problem } = map;
  const band = s.kind === 'A' ? 'A-weighted' : `${formatHz(s.centre)}${KIND_WORDS[s.kind]}`;
  const nameOf = (id: string) => place.loudspeakers.find((l) => l.id === id)?.name ?? id;
  const text = (m: number) => lengthText(m, place.lengthUnit, 1);
  const isDifference = maps?.isDifference ?? false;
  const of = isDifference
    ? ', A less B'
    : s.compares && maps && maps.others.length > 0
      ? `, map ${s.look}`
      : '';
  const level = (db: number) => levelWords(db - zeroDb, s, isDifference);
  const notes: { key: string; text: string; small?: string; attention?: boolean }[] = [];
  if (problem) notes.push({ key: 'problem', text: problem, attention: true });
  // where a loudspeaker stands in a wall, or outside, what the map shows of it will not be heard
  problems
    .filter((p) => p.kind === 'in the wall' || (p.kind === 'outside' && p.what === 'loudspeaker'))
    .forEach((p, i) =>
      notes.push({ key: `wall ${i}`, text: placeProblemWords(p, place, ''), attention: true }),
    );
  if (s.solo !== null && maps)
    notes.push({ key: 'solo', text: `${nameOf(s.solo)} alone. N goes on to the next, Shift and N back.` });
  if (map.isRough && maps)
    notes.push({ key: 'rough', text: 'A first look: the exact sum of thirty thirds follows.' });
  if (maps?.figures) {
    const { figures, seats } = maps;
    const quietest = seats.reduce((a, b) => (b.db < a.db ? b : a));
    const loudest = seats.reduce((a, b) => (b.db > a.db ? b : a));
    notes.push({
      key: 'seats',
      text: `${band}${of}: ${level(figures.meanDb)} on the mean of the seats, ${(figures.mostDb - figures.leastDb).toFixed(1)} dB from the least to the most.`,
      small: `least: ${quietest.name}; most: ${loudest.name}`,
      attention: !isDifference && figures.mostDb - figures.leastDb > 6,
    });
  }
  for (const { id, name, lines: edge } of lines?.reach ?? [])
    notes.push({
      key: `reach ${id}`,
      text:
        edge.length > 0
          ? `On the dashed line ${name} is 6 dB below its loudest on this surface: the next one could stand there.`
          : `${name} is nowhere on this surface 6 dB below its loudest.`,
    });
  if (s.compares && maps && lines) {
    const [a, b] = [maps.first, maps.others].map((of) =>
      listed(
        of.map((c) => nameOf(c.id)),
        3,
      ),
    );
    if (maps.others.length === 0)
      notes.push({ key: 'pick', text: 'Press a channel to put it into the second map, B.' });
    else {
      if (s.secondDb !== 0 || s.secondMs !== 0)
        notes.push({
          key: 'tried',
          text: `B is tried ${Math.abs(s.secondDb)} dB ${s.secondDb < 0 ? 'quieter' : 'louder'} and ${s.secondMs} ms later than it is set, in this map alone.`,
        });
      notes.push({
        key: 'equal',
        text:
          lines.equal.length > 0
            ? `On the orange line ${a} (A) and ${b} (B) are equally loud.`
            : `${a} (A) and ${b} (B) are nowhere equally loud on this surface.`,
      });
      notes.push({
        key: 'together',
        text:
          lines.together.length > 0
            ? `On the dashed line they arrive together; between the dotted ones within ${s.toleranceMs} ms.`
            : 'Nowhere on this surface do they arrive together.',
      });
      lines.places.forEach(({ firstM, secondM }, i) =>
        notes.push({
          key: `place ${i}`,
          text: `At ${i + 1} both hold: a place to align them, ${text(firstM)} from the middle of A, ${text(secondM)} from that of B.`,
        }),
      );
    }
  }
  if (maps && maps.first.length + maps.others.length === 0)
    notes.push({
      key: 'silent',
      text:
        place.loudspeakers.length === 0
          ? 'Nothing sounds: add loudspeakers, or choose a layout.'
          : 'Nothing sounds: press the channels that shall.',
      attention: true,
    });
  for (const { asked, taken } of maps?.unknown ?? [])
    notes.push({
      key: `unknown ${asked}`,
      text: `${asked} is not in the library: it radiates as ${taken} would.`,
      attention: true,
    });
  notes.push({
    key: 'direct',
    text: 'Direct sound only: what walls and ceiling send back is not in it; Room model tells that.',
    small: `Loudspeakers radiate as worked out from their radiators; at full scale each has its largest level. Lines are of the mean over ${text(2 * EVEN_M)}.`,
  });
  return (
    <section className="notes" aria-label="What the map says">
      <h2>What the map says</h2>
      {notes.map((n, i) => (
        <Note key={n.key} number={i + 1} attention={n.attention ?? false} small={n.small}>
          {n.text}
        </Note>
      ))}
    </section>
  );
}
