import { notifyProblem } from '../../services/notify';
import { liveSession } from '../../services/liveSession';

/** The longest file that is played, seconds: it is held in memory. */
const MOST_S = 600;

/** The first channel of a sound file, at the rate of the session; null for one that cannot be read, which is told. */
export async function readSoundFile(file: File): Promise<{ name: string; samples: Float32Array } | null> {
  const { rate } = liveSession.getState();
  try {
    // decoded at the rate of the context: the browser resamples
    const sound = await new OfflineAudioContext(1, 1, rate).decodeAudioData(await file.arrayBuffer());
    if (sound.duration > MOST_S) {
      notifyProblem(`“${file.name}” is longer than ${MOST_S / 60} minutes. Choose a shorter one.`);
      return null;
    }
    const samples = sound.getChannelData(0);
    if (!samples.some((v) => v !== 0)) {
      notifyProblem(`“${file.name}” is silent on its first channel. Choose another file.`);
      return null;
    }
    return { name: file.name, samples };
  } catch {
    notifyProblem(`“${file.name}” is no sound that this browser can read. WAV and FLAC can be.`);
    return null;
  }
}
