import { useEffect, useState } from 'react';
import { designWorker } from '../../parts/designs';
import { tellProblem } from '../../parts/tell';
import { sentenceOf } from '../../store';

const NONE: Float64Array[] = [];

/** Levels of single spots as found, by the keys that the design worker knows them under; dB. */
export function useSpotLevels(keys: string[], ready: boolean): Float64Array[] {
  const [state, setState] = useState<{ key: string; levels: Float64Array[] }>({ key: '', levels: NONE });
  const key = keys.join('|');
  useEffect(() => {
    if (!ready || keys.length === 0) return;
    let current = true;
    Promise.all(keys.map((k) => designWorker().call((api) => api.level(k))))
      .then((levels) => current && setState({ key, levels }))
      .catch((error: unknown) => current && tellProblem(sentenceOf(error)));
    return () => {
      current = false;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the joined key names them all
  }, [key, ready]);
  return state.key === key ? state.levels : NONE;
}
