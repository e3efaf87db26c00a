import { bandLevelDb, LIBRARY_GRID, type LibraryCurve } from '@pebble-hall/core/traces';
import { formatHz, signedDb } from '../../../charts/chartMath';
import { valuesOf } from './libraryValues';

interface Props {
  drawn: readonly { id: string; colour: string; curve: LibraryCurve }[];
  /** index of the frequency that is pointed at; null for none */
  cursor: number | null;
  marked: { from: number; to: number } | null;
  nameOf: (id: string) => string;
}

const readPhase = (degrees: number) => (Number.isFinite(degrees) ? `${Math.round(degrees)}°` : 'no phase');

/** What all visible traces are at the cursor, and in the band that is marked. */
export function LibraryReadouts({ drawn, cursor, marked, nameOf }: Props) {
  const at = cursor === null ? null : LIBRARY_GRID[cursor]!;
  return (
    <>
      {at === null ? null : (
        <output aria-label="Readout" style={{ fontSize: 12.5, display: 'grid', gap: 2 }}>
          <b>{formatHz(at)}</b>
          {drawn.map(({ id, colour, curve }) => (
            <Line key={id} colour={colour} name={nameOf(id)}>
              {signedDb(valuesOf(curve, 'Level')[cursor!]!)} dB,{' '}
              {readPhase(valuesOf(curve, 'Phase')[cursor!]!)}
            </Line>
          ))}
        </output>
      )}
      {marked && drawn.length > 0 ? (
        <output aria-label="In the marked band" style={{ fontSize: 12.5, display: 'grid', gap: 2 }}>
          <b>
            {formatHz(marked.from)} to {formatHz(marked.to)}
          </b>
          {drawn.map(({ id, colour, curve }) => {
            const db = bandLevelDb(curve, marked);
            return (
              <Line key={id} colour={colour} name={nameOf(id)}>
                {Number.isFinite(db) ? `${signedDb(db)} dB` : 'not known'}
              </Line>
            );
          })}
        </output>
      ) : null}
    </>
  );
}

const Line = ({ colour, name, children }: { colour: string; name: string; children: React.ReactNode }) => (
  <span>
    <span
      aria-hidden="true"
      style={{
        display: 'inline-block',
        width: 13,
        height: 4,
        borderRadius: 2,
        marginRight: 6,
        verticalAlign: 'middle',
        background: `var(--${colour})`,
      }}
    />
    <span className="mono">{children}</span> {name}
  </span>
);
