import { IconEye, IconEyeOff } from '../../../icons';
import { memo } from 'react';
import { isKept, type LibraryRow } from './libraryRows';

/** What hands do with rows. */
export interface RowHands {
  choose: (row: LibraryRow, event: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }) => void;
  show: (row: LibraryRow, isShown: boolean) => void;
  /** ids of what moves with a row */
  drag: (row: LibraryRow) => string[];
  over: (id: string | null) => void;
  drop: (ids: string[], to: LibraryRow, before: boolean) => void;
}

interface Props {
  row: LibraryRow;
  /** the folder that begins with it; null for none */
  heading: string | null;
  /** of its curve; null while it is not shown */
  colour: string | null;
  isSelected: boolean;
  isBroken: boolean;
  /** whether something is dragged over it */
  isOver: boolean;
  /** which never change */
  hands: RowHands;
}

/** What a dragged row carries: ids of traces, as nothing else does. */
const DRAGGED = 'application/x-library-traces';
const KIND_WORDS = {
  live: 'live',
  together: 'swept together',
  file: 'imported',
  computed: 'computed',
  sweep: 'sweep',
  reference: 'in the open',
  shared: 'other projects',
  spectrum: 'spectrum',
};

/** A row of the library. Of a long list only those that changed are drawn anew. */
export const TraceRow = memo(function TraceRow(props: Props) {
  const { row, heading, colour, isSelected, isBroken, isOver, hands } = props;
  return (
    <div
      draggable={isKept(row)}
      onDragStart={(event) => {
        event.dataTransfer.setData(DRAGGED, JSON.stringify(hands.drag(row)));
        event.dataTransfer.effectAllowed = 'move';
      }}
      onDragOver={(event) => {
        if (!event.dataTransfer.types.includes(DRAGGED) || !isKept(row)) return;
        event.preventDefault();
        hands.over(row.id);
      }}
      onDragEnd={() => hands.over(null)}
      onDrop={(event) => {
        const dragged = event.dataTransfer.getData(DRAGGED);
        if (!dragged) return;
        event.preventDefault();
        const { top, height } = event.currentTarget.getBoundingClientRect();
        hands.drop(JSON.parse(dragged) as string[], row, event.clientY < top + height / 2);
      }}
      style={isOver ? { outline: '2px solid var(--kelp)', borderRadius: 4 } : undefined}
    >
      {heading === null ? null : (
        <div className="quiet" style={{ fontSize: 12, padding: '6px 4px 2px' }}>
          {heading}
        </div>
      )}
      <div style={{ display: 'flex', alignItems: 'center', gap: 4 }}>
        <button
          type="button"
          className="trace-row"
          aria-pressed={isSelected}
          title={row.name}
          onClick={(event) => hands.choose(row, event)}
        >
          <span
            aria-hidden="true"
            style={{
              width: 13,
              height: 4,
              borderRadius: 2,
              background: colour ? `var(--${colour})` : 'var(--line)',
            }}
          />
          <span style={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
            {row.name}
            {row.tags.map((t) => (
              <small key={t} className="quiet">
                {' '}
                #{t}
              </small>
            ))}
            {row.look ? (
              <small className="quiet" style={{ display: 'block' }}>
                {row.look}
              </small>
            ) : null}
          </span>
          <small className={isBroken ? 'attention' : 'quiet'}>
            {isBroken ? 'broken' : KIND_WORDS[row.kind]}
          </small>
        </button>
        <button
          type="button"
          className="trace-eye"
          aria-label={colour ? `Hide ${row.name}` : `Show ${row.name}`}
          onClick={() => hands.show(row, !colour)}
        >
          {colour ? <IconEye size={15} /> : <IconEyeOff size={15} />}
        </button>
      </div>
    </div>
  );
});
