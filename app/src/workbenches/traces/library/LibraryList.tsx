import { ActionIcon, NativeSelect, TextInput } from '@mantine/core';
import { IconEye, IconEyeOff } from '@tabler/icons-react';
import { useDeferredValue, useMemo, useRef, useState } from 'react';
import type { Project } from '@pebble-hall/core/project';
import { foundRows, libraryRows, type LibraryRow, type LibrarySort } from './libraryRows';

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
const KIND_WORDS = {
  live: 'live',
  file: 'imported',
  computed: 'computed',
  sweep: 'sweep',
  spectrum: 'spectrum',
};

/** Everything measured, imported or computed: searched, chosen, shown and hidden. */
export function LibraryList({ project, selected, onSelect, shown, onShow, problems }: Props) {
  const [search, setSearch] = useState('');
  const [sort, setSort] = useState<LibrarySort>('newest first');
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
          data={['newest first', 'by name']}
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
          onSelect(event.shiftKey ? [...new Set([...selected, next.id])] : [next.id]);
          list.current!.querySelectorAll<HTMLElement>('.trace-row')[to]?.focus();
        }}
      >
        {drawn.map((row, i) => {
          const colour = shown.get(row.id);
          const isSelected = selected.includes(row.id);
          return (
            <div key={row.id}>
              {row.folder !== '' && drawn[i - 1]?.folder !== row.folder ? (
                <div className="quiet" style={{ fontSize: 12, padding: '6px 4px 2px' }}>
                  {row.folder}
                </div>
              ) : null}
              <div style={{ display: 'flex', alignItems: 'center', gap: 4 }}>
                <button
                  type="button"
                  className="trace-row"
                  aria-pressed={isSelected}
                  title={row.name}
                  onClick={(event) => choose(row, event)}
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
                  </span>
                  <small className={problems.has(row.id) ? 'attention' : 'quiet'}>
                    {problems.has(row.id) ? 'broken' : KIND_WORDS[row.kind]}
                  </small>
                </button>
                {row.kind === 'spectrum' ? (
                  <span style={{ width: 24 }} />
                ) : (
                  <ActionIcon
                    size={24}
                    variant="subtle"
                    color="gray"
                    aria-label={colour ? `Hide ${row.name}` : `Show ${row.name}`}
                    onClick={() => onShow(row, !colour)}
                  >
                    {colour ? <IconEye size={15} /> : <IconEyeOff size={15} />}
                  </ActionIcon>
                )}
              </div>
            </div>
          );
        })}
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
