import { sectionBiquad, signalPath, type Section, type SignalPath } from '../path/index.js';

/** What one subwoofer of several that play together does of its own. */
export interface SubSetting {
  gainDb: number;
  delayS: number;
  inverted: boolean;
  sections: Section[];
}

export const plainSub = (): SubSetting => ({ gainDb: 0, delayS: 0, inverted: false, sections: [] });

/** The same as a path. */
export const subPath = ({ gainDb, delayS, inverted, sections }: SubSetting, rate: number): SignalPath =>
  signalPath(rate, { gainDb, delayS, inverted, filters: sections.map((s) => sectionBiquad(s, rate)) });
