import type { LibraryCurve, LongWork } from '@pebble-hall/core/traces';
import QuickLRU from 'quick-lru';
import { useEffect, useMemo, useState } from 'react';
import { sentenceOf } from '../store';
import { runJob } from './jobs';
import {
  contentKey,
  leafKey,
  leavesOf,
  problemOf,
  readLeaf,
  seenTrace,
  type SeenTrace,
  type Shelf,
} from './libraryCurves';

/** Curves that were read, by what they were read from; they never change. */
const read = new QuickLRU<string, LibraryCurve>({ maxSize: 600 });
/** Traces as they were seen, by all that they depend on. */
const seenBefore = new QuickLRU<string, SeenTrace>({ maxSize: 400 });
/** What was worked out from them, by all that it depends on. */
const worked = new QuickLRU<string, SeenTrace>({ maxSize: 200 });

/** What is read of a leaf: its curve, or why it could not be. */
type Leaf = { curve: LibraryCurve } | { problem: string };

/** Traces of the library by their ids, as they are seen; those that are still being read or worked out have neither curve nor problem. */
export function useLibrary(shelf: Shelf, ids: readonly string[]): Map<string, SeenTrace> {
  const [leaves, setLeaves] = useState<ReadonlyMap<string, Leaf>>(new Map());
  const [ready, setReady] = useState(0);
  const wanted = useMemo(() => leavesOf(shelf, ids), [shelf, ids]);
  useEffect(() => {
    let isOver = false;
    const add = (key: string, leaf: Leaf) => {
      if (!isOver) setLeaves((now) => new Map(now).set(key, leaf));
    };
    for (const id of wanted) {
      const key = leafKey(shelf, id)!;
      const known = read.get(key);
      if (known) add(key, { curve: known });
      else
        readLeaf(shelf, id).then(
          (curve) => {
            read.set(key, curve);
            add(key, { curve });
          },
          (error: unknown) => add(key, { problem: sentenceOf(error) }),
        );
    }
    return () => void (isOver = true);
  }, [wanted, shelf]);
  const { seen, asked } = useMemo(() => seenNow(shelf, ids, leaves, ready), [shelf, ids, leaves, ready]);
  useEffect(() => {
    const over = new AbortController();
    for (const [key, work] of asked)
      runJob('views.libraryWork', work, { signal: over.signal }).then(
        (curve) => {
          worked.set(key, { curve, problem: null });
          setReady((n) => n + 1);
        },
        (error: unknown) => {
          if (over.signal.aborted) return;
          worked.set(key, { curve: null, problem: problemOf(error) });
          setReady((n) => n + 1);
        },
      );
    return () => over.abort();
  }, [asked]);
  return seen;
}

/** Everything as far as it is there, and what has still to be worked out for the rest. @param _ready how much was worked out by now */
function seenNow(
  shelf: Shelf,
  ids: readonly string[],
  leaves: ReadonlyMap<string, Leaf>,
  _ready: number,
): { seen: Map<string, SeenTrace>; asked: Map<string, LongWork> } {
  const asked = new Map<string, LongWork>();
  const worker = (key: string, work: LongWork) => {
    const known = worked.get(key);
    if (!known) asked.set(key, work);
    return known ?? null;
  };
  const leafOf = (of: string) => {
    const key = leafKey(shelf, of);
    return key === null ? undefined : leaves.get(key);
  };
  const curveOf = (of: string) => {
    const leaf = leafOf(of);
    return leaf && 'curve' in leaf ? leaf.curve : null;
  };
  const seen = new Map(
    ids.map((id): [string, SeenTrace] => {
      const own = leafOf(id);
      if (own && 'problem' in own) return [id, { curve: null, problem: own.problem }];
      const key = contentKey(shelf, id);
      const before = key === null ? undefined : seenBefore.get(key);
      if (before) return [id, before];
      const now = seenTrace(shelf, id, curveOf, worker);
      if (key !== null && now.curve) seenBefore.set(key, now);
      return [id, now];
    }),
  );
  return { seen, asked };
}
