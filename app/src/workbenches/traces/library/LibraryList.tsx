import { NativeSelect, TextInput } from '@mantine/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useDeferredValue, useLayoutEffect, useMemo, useRef, useState } from 'react';
import type { Project } from '@pebble-hall/core/project';
import type { SharedTrace } from '../../../store';
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
  /** what stands on the shelf of all projects */
  shared: readonly SharedTrace[];
  /** in the order in which they were chosen */
  selected: readonly string[];
  onSelect: (ids: string[]) => void;
  shown: ReadonlyMap<string, string>;
  onShow: (row: LibraryRow, isShown: boolean) => void;
  problems: ReadonlyMap<string, string>;
}

/** Heights of a row and of what may stand in it, px, until they are measured. */
const [ROW, HEADING, LOOK] = [25, 24, 16];
/** Rows that are drawn beyond what is seen, above and below. */
const BEYOND = 6;

const counted = (n: number) => `${n.toLocaleString('en-GB')} ${n === 1 ? 'trace' : 'traces'}`;

/** Everything measured, imported or computed: searched, chosen, shown and hidden. */
export function LibraryList({ project, shared, selected, onSelect, shown, onShow, problems }: Props) {
  const [search, setSearch] = useState('');
  const [sort, setSort] = useState<LibrarySort>('newest first');
  const [over, setOver] = useState<string | null>(null);
  const list = useRef<HTMLDivElement>(null);
  const asked = useDeferredValue(search);
  const rows = useMemo(() => libraryRows(project, shared), [project, shared]);
  const found = useMemo(() => foundRows(rows, asked, sort), [rows, asked, sort]);
  const headingOf = (i: number) =>
    found[i]!.folder !== '' && found[i - 1]?.folder !== found[i]!.folder ? found[i]!.folder : null;
  const rowsSeen = useVirtualizer({
    count: found.length,
    getScrollElement: () => list.current,
    estimateSize: (i) => ROW + (headingOf(i) === null ? 0 : HEADING) + (found[i]!.look === '' ? 0 : LOOK),
    getItemKey: (i) => found[i]!.id,
    overscan: BEYOND,
    gap: 1,
  });
  const choose = (row: LibraryRow, event: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }) => {
    if (event.ctrlKey || event.metaKey)
      return onSelect(
        selected.includes(row.id) ? selected.filter((id) => id !== row.id) : [...selected, row.id],
      );
    const last = selected.at(-1);
    const [from, to] = [found.findIndex((r) => r.id === last), found.findIndex((r) => r.id === row.id)];
    if (!event.shiftKey || from < 0) return onSelect([row.id]);
    const range = found.slice(Math.min(from, to), Math.max(from, to) + 1).map((r) => r.id);
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
      style={{ display: 'grid', gridTemplateRows: 'auto auto minmax(0, 1fr)', gap: 6, minHeight: 0 }}
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
      <span className="quiet" style={{ fontSize: 12, padding: '0 4px' }}>
        {asked.trim() === '' ? counted(rows.length) : `${found.length} of ${counted(rows.length)}`}
      </span>
      <div
        ref={list}
        role="group"
        aria-label="Traces"
        style={{ overflow: 'auto', minHeight: 0 }}
        onKeyDown={(event) => {
          const step = { ArrowUp: -1, ArrowDown: 1 }[event.key];
          if (step === undefined) return;
          event.preventDefault();
          const at = found.findIndex((r) => r.id === selected.at(-1));
          const to = Math.max(0, Math.min(found.length - 1, at + step));
          const next = found[to];
          if (!next) return;
          if (event.altKey) {
            const row = found[at];
            if (row && isKept(row)) move(movedWith(row), next, step < 0);
            return;
          }
          onSelect(event.shiftKey ? [...new Set([...selected, next.id])] : [next.id]);
          rowsSeen.scrollToIndex(to);
          list.current!.querySelector<HTMLElement>(`[data-index="${to}"] .trace-row`)?.focus();
        }}
      >
        <div style={{ height: rowsSeen.getTotalSize(), position: 'relative' }}>
          {rowsSeen.getVirtualItems().map(({ index, key, start }) => {
            const row = found[index]!;
            return (
              <div
                key={key}
                ref={rowsSeen.measureElement}
                data-index={index}
                style={{ position: 'absolute', top: start, left: 0, right: 0 }}
              >
                <TraceRow
                  row={row}
                  heading={headingOf(index)}
                  colour={shown.get(row.id) ?? null}
                  isSelected={selected.includes(row.id)}
                  isBroken={problems.has(row.id)}
                  isOver={over === row.id}
                  hands={hands}
                />
              </div>
            );
          })}
        </div>
        {found.length === 0 ? (
          <span className="quiet" style={{ padding: 6 }}>
            {rows.length === 0 ? 'Nothing measured, imported or computed yet.' : 'No trace has these words.'}
          </span>
        ) : null}
      </div>
    </section>
  );
}
