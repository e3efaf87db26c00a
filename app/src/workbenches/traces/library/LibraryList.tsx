import { NativeSelect, TextInput } from '@mantine/core';
import { useDeferredValue, useLayoutEffect, useMemo, useRef, useState } from 'react';
import type { Project } from '@pebble-hall/core/project';
import { moveTraces } from './changeTraces';
import {
  foundRows,
  isKept,
  LIBRARY_SORTS,
  libraryRows,
  type LibraryRow,
  type LibrarySort,
} from './libraryRows';
import { TraceRow, type RowHands } from './TraceRow';

interface Props {
  project: Project;
  /** in the order in which they were chosen */
  selected: readonly string[];
  onSelect: (ids: string[]) => void;
  shown: ReadonlyMap<string, string>;
  onShow: (row: LibraryRow, isShown: boolean) => void;
  problems: ReadonlyMap<string, string>;
}

/** So many rows are drawn: who looks for one of more types a word of it. */
const MOST_ROWS = 150;
/** Everything measured, imported or computed: searched, chosen, shown and hidden. */
export function LibraryList({ project, selected, onSelect, shown, onShow, problems }: Props) {
  const [search, setSearch] = useState('');
  const [sort, setSort] = useState<LibrarySort>('newest first');
  const [over, setOver] = useState<string | null>(null);
  const list = useRef<HTMLDivElement>(null);
  const asked = useDeferredValue(search);
  const rows = useMemo(() => libraryRows(project), [project]);
  const found = useMemo(() => foundRows(rows, asked, sort), [rows, asked, sort]);
  const drawn = found.slice(0, MOST_ROWS);
  const choose = (row: LibraryRow, event: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }) => {
    if (event.ctrlKey || event.metaKey)
      return onSelect(
        selected.includes(row.id) ? selected.filter((id) => id !== row.id) : [...selected, row.id],
      );
    const last = selected.at(-1);
    const [from, to] = [drawn.findIndex((r) => r.id === last), drawn.findIndex((r) => r.id === row.id)];
    if (!event.shiftKey || from < 0) return onSelect([row.id]);
    const range = drawn.slice(Math.min(from, to), Math.max(from, to) + 1).map((r) => r.id);
    onSelect([...new Set([...selected, ...(from <= to ? range : range.reverse())])]);
  };
  /** What moves with a row: all that are chosen where it is one of them. */
  const movedWith = (row: LibraryRow) => (selected.includes(row.id) ? [...selected] : [row.id]);
  /** Into the order that is one's own, which begins as what is seen. */
  const move = (ids: readonly string[], to: LibraryRow, before: boolean) => {
    if (!isKept(to)) return;
    setSort('own order');
    void moveTraces(
      ids,
      to.id,
      before,
      found.map((r) => r.id),
    );
  };
  const latest = useRef<Omit<RowHands, 'over'>>(null!);
  useLayoutEffect(() => {
    latest.current = {
      choose,
      show: onShow,
      drag: movedWith,
      drop: move,
    };
  });
  // the same for as long as the list is there, so that a row is drawn anew only when it changes itself
  const hands = useMemo(
    (): RowHands => ({
      choose: (...of) => latest.current.choose(...of),
      show: (...of) => latest.current.show(...of),
      drag: (row) => latest.current.drag(row),
      over: setOver,
      drop: (...of) => {
        setOver(null);
        latest.current.drop(...of);
      },
    }),
    [],
  );
  return (
    <section
      aria-label="Traces of the library"
      style={{ display: 'grid', gridTemplateRows: 'auto minmax(0, 1fr)', gap: 6, minHeight: 0 }}
    >
      <div style={{ display: 'flex', gap: 6 }}>
        <TextInput
          size="xs"
          aria-label="Search traces"
          placeholder="Search names, folders, tags"
          value={search}
          onChange={(e) => setSearch(e.currentTarget.value)}
          style={{ flex: 1 }}
        />
        <NativeSelect
          size="xs"
          aria-label="Sorted"
          w={112}
          data={[...LIBRARY_SORTS]}
          value={sort}
          onChange={(e) => setSort(e.currentTarget.value as LibrarySort)}
        />
      </div>
      <div
        ref={list}
        role="group"
        aria-label="Traces"
        style={{ overflow: 'auto', minHeight: 0, display: 'flex', flexDirection: 'column', gap: 1 }}
        onKeyDown={(event) => {
          const step = { ArrowUp: -1, ArrowDown: 1 }[event.key];
          if (step === undefined) return;
          event.preventDefault();
          const at = drawn.findIndex((r) => r.id === selected.at(-1));
          const to = Math.max(0, Math.min(drawn.length - 1, at + step));
          const next = drawn[to];
          if (!next) return;
          if (event.altKey) {
            const row = drawn[at];
            if (row && isKept(row)) move(movedWith(row), next, step < 0);
            return;
          }
          onSelect(event.shiftKey ? [...new Set([...selected, next.id])] : [next.id]);
          list.current!.querySelectorAll<HTMLElement>('.trace-row')[to]?.focus();
        }}
      >
        {drawn.map((row, i) => (
          <TraceRow
            key={row.id}
            row={row}
            heading={row.folder !== '' && drawn[i - 1]?.folder !== row.folder ? row.folder : null}
            colour={shown.get(row.id) ?? null}
            isSelected={selected.includes(row.id)}
            isBroken={problems.has(row.id)}
            isOver={over === row.id}
            hands={hands}
          />
        ))}
        {found.length > MOST_ROWS ? (
          <span className="quiet" style={{ padding: 6 }}>
            {found.length - MOST_ROWS} more: search for a word of their names.
          </span>
        ) : null}
        {found.length === 0 ? (
          <span className="quiet" style={{ padding: 6 }}>
            {rows.length === 0 ? 'Nothing measured, imported or computed yet.' : 'No trace has these words.'}
          </span>
        ) : null}
      </div>
    </section>
  );
}
