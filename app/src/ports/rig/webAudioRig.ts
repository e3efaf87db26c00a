import type { DeviceChoice } from '@pebble-hall/core/project';
import {
  checkRequest,
  type AudioRig,
  type PlayOptions,
  type PlayRequest,
  type Recording,
  type RigDescription,
} from './AudioRig';
import { abortError } from '../abort';
import { clockWatch } from './clockWatch';
import { lossCounter } from './lossCounter';
import { lostRuns } from './lostRuns';
import { deviceProblem, mediaDevices, plainAudio, trackWarnings } from './audioDevices';
import type { RecorderBlock, RecorderMessage, RecorderOptions } from './recorder.worklet';
import recorderUrl from './recorder.worklet.ts?worker&url';
import { checkOutputs, type RigSession, type SessionRequest } from './rigSession';
import type { SessionMessage, SessionOptions } from './session.worklet';
import sessionUrl from './session.worklet.ts?worker&url';

/** Sound is scheduled this far ahead, so that it starts on the sample. */
const LEAD_S = 0.12;
/** An input that was just opened stutters for a moment: so much longer is waited then. */
const WARM_UP_S = 0.4;
const BLOCK = 2048;

interface Opened {
  context: AudioContext;
  outputs: number;
  warnings: string[];
}

interface OpenInput {
  stream: MediaStream;
  node: MediaStreamAudioSourceNode;
  channels: number;
  warnings: string[];
  /** by `performance.now` */
  openedAt: number;
}

/** A real interface through the browser: every processing off, recorded in an AudioWorklet on the clock that plays. */
export class WebAudioRig implements AudioRig {
  readonly isAudible = true;
  private opened: Opened | null = null;
  private input: OpenInput | null = null;
  /** the sentence that says what vanished; null while all is there */
  private lost: string | null = null;
  private readonly interrupts = new Set<(reason: Error) => void>();

  constructor(private readonly choice: DeviceChoice) {}

  async open(): Promise<RigDescription> {
    const { context, outputs, warnings } = await this.openOutput();
    const input = await this.openInput(context);
    const { inputName, outputName } = this.choice;
    const name = inputName === outputName ? inputName : `${outputName} and ${inputName}`;
    const described = {
      name,
      rate: context.sampleRate,
      inputs: Array.from({ length: input.channels }, (_, i) => ({ number: i + 1, name: `Input ${i + 1}` })),
      outputs: Array.from({ length: outputs }, (_, i) => ({ number: i + 1, name: `Output ${i + 1}` })),
      warnings: [...warnings, ...input.warnings],
    };
    if (this.choice.releases && this.interrupts.size === 0) this.releaseInput();
    return described;
  }

  private async openOutput(): Promise<Opened> {
    if (this.opened && this.opened.context.state !== 'closed') {
      await this.wake(this.opened.context);
      return this.opened;
    }
    const { rate, outputId, outputName, outputs: wanted } = this.choice;
    let context: AudioContext;
    try {
      context = new AudioContext({ sampleRate: rate, latencyHint: 'playback' });
    } catch (error) {
      throw new Error(deviceProblem(error, `Sound at ${rate} Hz`), { cause: error });
    }
    try {
      if (context.sampleRate !== rate) {
        throw new Error(
          `The output runs at ${context.sampleRate} Hz, not at the ${rate} Hz asked for. Set the interface to ${rate} Hz, or choose its rate here.`,
        );
      }
      const sink = context as AudioContext & { setSinkId?: (id: string) => Promise<void> };
      if (outputId && outputId !== 'default') {
        if (!sink.setSinkId)
          throw new Error('This browser cannot choose an output. Make it the output of the system.');
        await sink.setSinkId(outputId).catch((error: unknown) => {
          throw new Error(deviceProblem(error, outputName), { cause: error });
        });
      }
      await context.audioWorklet.addModule(recorderUrl);
      await context.audioWorklet.addModule(sessionUrl);
      const { destination } = context;
      const outputs = Math.max(1, Math.min(wanted, destination.maxChannelCount));
      destination.channelCount = outputs;
      destination.channelCountMode = 'explicit';
      destination.channelInterpretation = 'discrete';
      const warnings =
        outputs < wanted ? [`The output gives ${outputs} of the ${wanted} channels asked for.`] : [];
      context.addEventListener('statechange', () => {
        if (context.state !== 'running' && context === this.opened?.context)
          this.interrupt(
            'The browser put the sound to sleep. Bring this tab to the front and take it again.',
          );
      });
      await this.wake(context);
      this.opened = { context, outputs, warnings };
      return this.opened;
    } catch (error) {
      await context.close();
      throw error;
    }
  }

  private async wake(context: AudioContext): Promise<void> {
    if (context.state === 'running') return;
    const late = new Promise<'late'>((resolve) => setTimeout(() => resolve('late'), 3000));
    if ((await Promise.race([context.resume(), late])) === 'late') {
      throw new Error(
        'The browser holds the sound back until this page was clicked. Click it, then try again.',
      );
    }
  }

  private async openInput(context: AudioContext): Promise<OpenInput> {
    if (this.input && !this.lost) return this.input;
    this.releaseInput();
    const { inputId, inputName, inputs, rate } = this.choice;
    let stream: MediaStream;
    try {
      const audio = plainAudio({ deviceId: inputId, channels: inputs, rate });
      stream = await mediaDevices().getUserMedia({ audio });
    } catch (error) {
      throw new Error(deviceProblem(error, inputName || 'The input'), { cause: error });
    }
    this.lost = null;
    const track = stream.getAudioTracks()[0]!;
    track.addEventListener('ended', () => {
      this.lost = `${inputName || 'The input'} was unplugged or taken away. Plug it in again, then repeat what was under way.`;
      this.interrupt(this.lost);
    });
    const settings = track.getSettings();
    const node = context.createMediaStreamSource(stream);
    // the browser may not say how many channels there are; then as many as were asked for are taken
    const channels = Math.min(inputs, settings.channelCount ?? inputs);
    this.input = {
      stream,
      node,
      channels,
      warnings: trackWarnings(settings, { channels: inputs, rate }),
      openedAt: performance.now(),
    };
    return this.input;
  }

  private releaseInput(): void {
    this.input?.node.disconnect();
    for (const track of this.input?.stream.getTracks() ?? []) track.stop();
    this.input = null;
  }

  private interrupt(sentence: string): void {
    const error = new Error(sentence);
    for (const reject of this.interrupts) reject(error);
  }

  async playAndRecord(
    request: PlayRequest,
    { signal, onProgress, onBlock }: PlayOptions = {},
  ): Promise<Recording> {
    if (signal?.aborted) throw abortError();
    const { context, outputs } = await this.openOutput();
    const input = await this.openInput(context);
    checkRequest(this.choice.outputName || 'The output', request, outputs, input.channels);
    const { lengthFrames, signals, inputs } = request;
    const rate = context.sampleRate;
    const recorded = inputs.map(() => new Float32Array(lengthFrames));
    const leadS = LEAD_S + Math.max(0, WARM_UP_S - (performance.now() - input.openedAt) / 1000);
    const startFrame = Math.ceil((context.currentTime + leadS) * rate);
    const stands = clockWatch();
    const source = signals.length > 0 ? this.sourceOf(context, signals, outputs, lengthFrames) : null;
    const losses = lossCounter(BLOCK, startFrame);
    let stopRecording = () => {};
    let interrupt: (reason: Error) => void = () => {};
    const onAbort = () => interrupt(abortError());
    let timer: ReturnType<typeof setInterval> | undefined;
    try {
      await new Promise<void>((resolve, reject) => {
        interrupt = reject;
        this.interrupts.add(reject);
        signal?.addEventListener('abort', onAbort, { once: true });
        stopRecording = this.record(context, input, startFrame, ({ fromFrame, data, missed }) => {
          losses.add({ fromFrame, missed });
          const at = fromFrame - startFrame;
          inputs.forEach((number, i) => {
            const part = data.subarray((number - 1) * BLOCK, number * BLOCK);
            recorded[i]!.set(
              part.subarray(0, Math.max(0, Math.min(BLOCK, lengthFrames - at))),
              Math.min(at, lengthFrames),
            );
          });
          const [first] = inputs;
          if (onBlock && first !== undefined && at < lengthFrames)
            onBlock(
              data.slice((first - 1) * BLOCK, (first - 1) * BLOCK + Math.min(BLOCK, lengthFrames - at)),
              at,
            );
          if (at + BLOCK >= lengthFrames) resolve();
        });
        source?.start(startFrame / rate);
        timer = setInterval(() => {
          const share = (context.currentTime * rate - startFrame) / lengthFrames;
          onProgress?.(Math.max(0, Math.min(0.99, share)));
          if (stands(performance.now() / 1000, context.currentTime))
            reject(
              new Error(
                `${this.choice.inputName || 'The interface'} delivers no sound, or this machine was asleep. Check that it is connected, then take it again.`,
              ),
            );
        }, 60);
      });
      onProgress?.(1);
      const missedBlocks = losses.count();
      return { channels: recorded, dropouts: missedBlocks + lostRuns(recorded), missedBlocks };
    } finally {
      signal?.removeEventListener('abort', onAbort);
      clearInterval(timer);
      source?.stop();
      source?.disconnect();
      stopRecording();
      this.interrupts.delete(interrupt);
      if (this.choice.releases) this.releaseInput();
    }
  }

  /** Everything that is played as one buffer, so that all outputs start on the same sample. */
  private sourceOf(
    context: AudioContext,
    signals: PlayRequest['signals'],
    outputs: number,
    length: number,
  ): AudioBufferSourceNode {
    const buffer = context.createBuffer(outputs, Math.max(1, length), context.sampleRate);
    for (const { output, samples } of signals) {
      const channel = buffer.getChannelData(output - 1);
      for (let i = 0; i < Math.min(samples.length, length); i++) channel[i] = channel[i]! + samples[i]!;
    }
    const source = context.createBufferSource();
    source.buffer = buffer;
    source.channelInterpretation = 'discrete';
    source.connect(context.destination);
    return source;
  }

  private record(
    context: AudioContext,
    { node, channels }: OpenInput,
    startFrame: number,
    onBlock: (block: RecorderBlock) => void,
  ): () => void {
    const processorOptions: RecorderOptions = { channels, blockFrames: BLOCK };
    const recorder = new AudioWorkletNode(context, 'pebble-recorder', {
      numberOfInputs: 1,
      numberOfOutputs: 1, // silent, but connected: a node that leads nowhere need not be run
      outputChannelCount: [1],
      channelCount: channels,
      channelCountMode: 'explicit',
      channelInterpretation: 'discrete',
      processorOptions,
    });
    const tell = (message: RecorderMessage, transfer: Transferable[] = []) =>
      recorder.port.postMessage(message, transfer);
    recorder.port.onmessage = ({ data }: MessageEvent<RecorderBlock>) => {
      onBlock(data);
      tell({ back: data.data }, [data.data.buffer]);
    };
    tell({ startFrame });
    node.connect(recorder).connect(context.destination);
    return () => {
      recorder.port.onmessage = null;
      tell({ stop: true });
      recorder.disconnect();
      try {
        node.disconnect(recorder);
      } catch {
        // the input was let go of already
      }
    };
  }

  async stream(
    inputs: number[],
    onBlock: (block: Float32Array[], fromFrame: number) => void,
    onLost: (error: Error) => void = () => {},
  ): Promise<{ stop: () => void }> {
    const { context, outputs } = await this.openOutput();
    const input = await this.openInput(context);
    checkRequest(
      this.choice.inputName || 'The input',
      { inputs, signals: [], lengthFrames: BLOCK },
      outputs,
      input.channels,
    );
    const stop = this.record(context, input, 0, ({ data, fromFrame }) =>
      onBlock(
        inputs.map((number) => data.slice((number - 1) * BLOCK, number * BLOCK)),
        fromFrame,
      ),
    );
    this.interrupts.add(onLost);
    return {
      stop: () => {
        stop();
        this.interrupts.delete(onLost);
        if (this.choice.releases) this.releaseInput();
      },
    };
  }

  async session({ inputs, port }: SessionRequest, onLost: (error: Error) => void): Promise<RigSession> {
    const { context, outputs } = await this.openOutput();
    const input = await this.openInput(context);
    const name = this.choice.inputName || 'The input';
    checkRequest(name, { inputs, signals: [], lengthFrames: 1 }, outputs, input.channels);
    const processorOptions: SessionOptions = { inputs };
    const node = new AudioWorkletNode(context, 'pebble-session', {
      numberOfInputs: 1,
      numberOfOutputs: 1,
      outputChannelCount: [outputs],
      channelCount: input.channels,
      channelCountMode: 'explicit',
      channelInterpretation: 'discrete',
      processorOptions,
    });
    const tell = (message: SessionMessage, transfer: Transferable[] = []) =>
      node.port.postMessage(message, transfer);
    const interrupt = (error: Error) => {
      end();
      onLost(error);
    };
    const end = () => {
      this.interrupts.delete(interrupt);
      tell({ stop: true });
      node.disconnect();
      try {
        input.node.disconnect(node);
      } catch {
        // the input was let go of already
      }
      if (this.choice.releases) this.releaseInput();
    };
    node.onprocessorerror = () =>
      interrupt(new Error('The sound stopped: the audio thread failed. Start the session again.'));
    this.interrupts.add(interrupt);
    tell({ port }, [port]);
    input.node.connect(node).connect(context.destination);
    return {
      rate: context.sampleRate,
      play: (order, to) => {
        checkOutputs(this.choice.outputName || 'The output', to, outputs);
        tell({ order, outputs: [...to] });
      },
      refresh: () => {},
      stop: end,
    };
  }

  async close(): Promise<void> {
    this.interrupt('The interface was closed.');
    this.releaseInput();
    await this.opened?.context.close();
    this.opened = null;
  }
}
