import type { ProcessorProfile } from '@pebble-hall/core/processing';
import { useEffect, useState } from 'react';
import { notifyProblem } from '../../services/notify';
import { processorProfiles, sentenceOf } from '../../store';

export interface OwnProfiles {
  list: ProcessorProfile[];
  put: (profile: ProcessorProfile) => Promise<void>;
  remove: (model: string) => Promise<void>;
}

/** Profiles of one's own, as stored in this browser. */
export function useProfiles(): OwnProfiles {
  const [list, setList] = useState<ProcessorProfile[]>([]);
  const read = () =>
    processorProfiles
      .list()
      .then(setList)
      .catch((error: unknown) => notifyProblem(sentenceOf(error)));
  useEffect(() => void read(), []);
  const after = (run: Promise<void>) =>
    run
      .then(read)
      .catch((error: unknown) => notifyProblem(`The profile was not stored: ${sentenceOf(error)}`));
  return {
    list,
    put: (profile) => after(processorProfiles.put(profile)).then(() => {}),
    remove: (model) => after(processorProfiles.remove(model)).then(() => {}),
  };
}
