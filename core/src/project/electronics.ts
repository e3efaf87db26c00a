import type { QuietFigures, ToneFigures } from '../live/index.js';

/** What a device on the bench was found to do by itself. */
export interface DeviceFigures {
  takenAt: number;
  /** that was played, dBFS RMS, and the tone's frequency */
  levelDbfs: number;
  hz: number;
  /** by channel; null for one that was not measured, or from which no tone came */
  channels: {
    quiet: QuietFigures | null;
    tone: ToneFigures | null;
    /** after its reference, seconds */
    latencyS: number | null;
  }[];
}

/** A device without a microphone, between an output of the interface and one or two of its inputs. */
export interface ElectronicsBench {
  /** empty for nobody has named it */
  deviceName: string;
  /** connector that feeds it */
  output: number;
  /** what comes back: one channel of it, or two that are held against each other */
  inputs: number[];
  /** of the noise that is played, RMS */
  levelDbfs: number;
  /** taken off both channels alike, seconds */
  delayS: number;
  /** how far the channels may be apart */
  toleranceDb: number;
  toleranceDeg: number;
  /** the kept trace that others are held against, as the device stood flat; null for none */
  flatId: string | null;
  /** settings of the stand-in on the bench, by the names of its knobs; those that stand as they are delivered are left out */
  knobs: Record<string, number>;
  figures: DeviceFigures | null;
}

/** A bench as it is set up first. @param loopbackInput input that hears what is played; null for none */
export const newBench = (output: number, loopbackInput: number | null): ElectronicsBench => ({
  deviceName: '',
  output,
  inputs: loopbackInput === null ? [1, 2] : [7, 8],
  levelDbfs: -20,
  delayS: 0,
  toleranceDb: 0.5,
  toleranceDeg: 5,
  flatId: null,
  knobs: {},
  figures: null,
});
