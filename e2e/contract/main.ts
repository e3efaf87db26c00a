import { houseMemory } from '@pebble-hall/stand-ins/processor';
import { NET_LOFT_PLACE, noFaults } from '@pebble-hall/stand-ins/rig';
import type { AudioRig } from '../../app/src/ports/rig/AudioRig';
import { AUDIO_RIG_CONTRACT } from '../../app/src/ports/rig/audioRigContract';
import { listDevices } from '../../app/src/ports/rig/audioDevices';
import { SimulatedRig } from '../../app/src/ports/rig/simulatedRig';
import { WebAudioRig } from '../../app/src/ports/rig/webAudioRig';

const rigs: Record<string, () => AudioRig> = {
  simulated: () => {
    const rig = new SimulatedRig({
      pace: 'quick',
      faults: noFaults,
      place: () => NET_LOFT_PLACE,
      processor: async () => {
        const { outputs, filters } = houseMemory();
        return { outputs, filters, rate: 48000 };
      },
    });
    rig.placeMicrophones([
      { input: 1, position: { x: 3.6, y: 1.72, z: 1.14 }, serial: '4417', incidenceDeg: 0, gainDb: 0 },
    ]);
    return rig;
  },
  'web audio': () =>
    new WebAudioRig({
      inputId: '',
      inputName: 'the fake input',
      outputId: '',
      outputName: 'the fake output',
      rate: 48000,
      inputs: 2,
      outputs: 2,
      releases: false,
    }),
};

/** Loudest of some frequencies on each channel, and what was lost. */
interface Heard {
  heard: number[];
  dropouts: number;
  missedBlocks: number;
  /** stretches of 2 ms and more, between sounds, that are exactly zero on both channels */
  gaps: number;
}

/** What the test calls from outside. */
const contract = {
  clauses: AUDIO_RIG_CONTRACT.map((c) => c.name),
  /** null when it holds, else what is broken */
  run: async (kind: string, clause: string): Promise<string | null> => {
    const rig = rigs[kind]!();
    try {
      await AUDIO_RIG_CONTRACT.find((c) => c.name === clause)!.check(rig);
      return null;
    } catch (error) {
      return error instanceof Error ? `${error.name}: ${error.message}` : String(error);
    } finally {
      await rig.close();
    }
  },
  devices: listDevices,
  /** Records for a while and tells what was heard. */
  listen: async (seconds: number, frequencies: number[]): Promise<Heard> => {
    const rig = rigs['web audio']!();
    const { rate } = await rig.open();
    const { channels, dropouts, missedBlocks } = await rig.playAndRecord({
      signals: [],
      inputs: [1, 2],
      lengthFrames: Math.round(seconds * rate),
    });
    await rig.close();
    const power = (x: Float32Array, f: number) => {
      let [re, im] = [0, 0];
      x.forEach((v, i) => {
        re += v * Math.cos((2 * Math.PI * f * i) / rate);
        im += v * Math.sin((2 * Math.PI * f * i) / rate);
      });
      return re * re + im * im;
    };
    const heard = channels.map((c) => {
      const powers = frequencies.map((f) => power(c, f));
      return frequencies[powers.indexOf(Math.max(...powers))]!;
    });
    const sounding = [...channels[0]!.keys()].filter((i) => channels.some((c) => c[i] !== 0));
    const gaps = sounding.filter((at, k) => k > 0 && at - sounding[k - 1]! > 0.002 * rate).length;
    return { heard, dropouts, missedBlocks, gaps };
  },
  /** Streams two channels and counts frames that did not come. */
  capture: async (
    seconds: number,
  ): Promise<{
    frames: number;
    seconds: number;
    lostRuns: number;
    longestGapMs: number;
    missedBlocks: number;
  }> => {
    const rig = rigs['web audio']!();
    await rig.open();
    let [frames, lost, longest, last] = [0, 0, 0, performance.now()];
    let missed = 0;
    let next: number | null = null;
    const began = performance.now();
    const { stop } = await rig.stream([1, 2], ([a, b], fromFrame) => {
      if (next !== null && fromFrame !== next) missed++;
      next = fromFrame + a!.length;
      frames += a!.length;
      const now = performance.now();
      longest = Math.max(longest, now - last);
      last = now;
      let run = 0;
      for (let i = 0; i < a!.length; i++) {
        run = a![i] === 0 && b![i] === 0 ? run + 1 : 0;
        if (run === 96) lost++;
      }
    });
    await new Promise((resolve) => setTimeout(resolve, 1000 * seconds));
    stop();
    const took = (performance.now() - began) / 1000;
    await rig.close();
    return { frames, seconds: took, lostRuns: lost, longestGapMs: longest, missedBlocks: missed };
  },
};
declare global {
  interface Window {
    contract: typeof contract;
  }
}
window.contract = contract;
