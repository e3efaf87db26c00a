import type { ChannelDesign, ExactChannel } from '@pebble-hall/core/correct';
import type { BeforeAfter } from '@pebble-hall/core/views';
import { logGrid } from '@pebble-hall/core/signal';
import { useMemo } from 'react';
import { Note } from '../../../parts/Note';
import type { Look } from '../pages';
import type { DesignNote } from './readDesign';
import { readAgainst, readFilter } from '../filter/readFilter';
import { readTime } from '../filter/readTime';
import { missNote, type Miss } from './tour';

const grid = logGrid();

interface PlotNotesProps {
  look: Look;
  design: ChannelDesign;
  /** of the design, as the marks in the plot number them */
  notes: DesignNote[];
  /** null until it is there */
  made: ExactChannel | null;
  overTime: BeforeAfter | null;
  miss: Miss | undefined;
  missOver: number;
  /** the variant that is laid over */
  against: { name: string; design: ChannelDesign } | null;
}

/** What the plot of one channel says, whatever it shows of it. */
export function PlotNotes({ look, design, notes, made, overTime, miss, missOver, against }: PlotNotesProps) {
  const list = useMemo((): DesignNote[] => {
    if (look === 'Level') return notes;
    const said =
      look === 'Filter'
        ? readFilter(design, grid, made?.levelDb ?? null)
        : overTime && made
          ? readTime(look, overTime, grid, made)
          : [];
    return said.map((text) => ({ text }));
  }, [look, design, notes, made, overTime]);
  const beside = useMemo(() => (against ? readAgainst(design, grid, against) : null), [design, against]);
  const missed = miss && look === 'Level' ? missNote(miss, missOver) : null;
  return (
    <>
      {list.map((n, i) => (
        <Note key={`${look} ${i}`} number={i + 1} attention={n.attention ?? false} small={n.small}>
          {n.text}
        </Note>
      ))}
      {missed ? <p className="attention">{missed}</p> : null}
      {beside && (look === 'Level' || look === 'Filter') ? (
        <p aria-label="Against the other variant">{beside}</p>
      ) : null}
    </>
  );
}
