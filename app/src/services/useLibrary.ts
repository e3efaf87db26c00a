import type { LibraryCurve } from '@pebble-hall/core/traces';
import QuickLRU from 'quick-lru';
import { useEffect, useMemo, useState } from 'react';
import { sentenceOf } from '../store';
import { leafKey, leavesOf, readLeaf, seenTrace, type SeenTrace, type Shelf } from './libraryCurves';

/** Curves that were read, by what they were read from; they never change. */
const read = new QuickLRU<string, LibraryCurve>({ maxSize: 600 });

/** What is read of a leaf: its curve, or why it could not be. */
type Leaf = { curve: LibraryCurve } | { problem: string };

/** Traces of the library by their ids, as they are seen; those that are still being read have neither curve nor problem. */
export function useLibrary(shelf: Shelf, ids: readonly string[]): Map<string, SeenTrace> {
  const [leaves, setLeaves] = useState<ReadonlyMap<string, Leaf>>(new Map());
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
  return useMemo(
    () =>
      new Map(
        ids.map((id) => {
          const leafOf = (of: string) => {
            const key = leafKey(shelf, of);
            return key === null ? undefined : leaves.get(key);
          };
          const own = leafOf(id);
          if (own && 'problem' in own) return [id, { curve: null, problem: own.problem }];
          return [
            id,
            seenTrace(shelf, id, (of) => {
              const leaf = leafOf(of);
              return leaf && 'curve' in leaf ? leaf.curve : null;
            }),
          ];
        }),
      ),
    [shelf, ids, leaves],
  );
}
