import { crc32 } from '@pebble-hall/core/formats';
import {
  FILE_MEMORIES,
  plainOutput,
  type LoadRequest,
  type MemoryContents,
  type MemorySummary,
  type OutputSettings,
  type ProcessorProfile,
  type ProcessorState,
} from '@pebble-hall/core/processing';
import { ProcessorError, type ProcessorPort } from './ProcessorPort';

/** What the engineer says is in the processor by now. */
export interface PutInPlace {
  name: string;
  loadedAt: number;
  checksum: number;
  outputs: OutputSettings[];
  /** one per output, empty where there is none */
  filters: () => Promise<Float32Array[]>;
}

export interface FilesOnlyOptions {
  profile: ProcessorProfile;
  /** outputs that are spoken of */
  outputs: number;
  inPlace: PutInPlace | null;
  /** told when the engineer says that nothing is in place any more */
  onTakenOut: () => Promise<void>;
}

const { without: WITHOUT, placed: WITH } = FILE_MEMORIES;

const NO_LINE = (model: string) =>
  new ProcessorError(
    `${model}: nothing leads to it from here. Save the files in Hand over and load them there.`,
  );

/**
 * A processor that is reached by files only, or none: it holds what the engineer says it does. What it did before is
 * not known and taken as it sounds: it is in every measurement already.
 */
export class FilesOnlyProcessor implements ProcessorPort {
  readonly capabilities = { memories: false, playsThroughInputs: false, practice: null };

  constructor(private readonly options: FilesOnlyOptions) {}

  get profile(): ProcessorProfile {
    return this.options.profile;
  }

  async state(): Promise<ProcessorState> {
    const { profile, inPlace } = this.options;
    const memories = inPlace ? [this.plain(), this.placed(inPlace)] : [this.plain()];
    return { model: profile.model, transfer: null, active: inPlace ? WITH : WITHOUT, memories };
  }

  async readMemory(letter: string): Promise<MemoryContents> {
    const { inPlace, profile } = this.options;
    if (letter === WITHOUT)
      return { ...this.plain(), filters: this.outputs().map(() => new Float32Array(0)) };
    if (letter === WITH && inPlace) return { ...this.placed(inPlace), filters: await inPlace.filters() };
    throw new ProcessorError(
      `The sweeps were taken through memory ${letter} of another processor than ${profile.model}. Choose that one in Plan, or measure again.`,
    );
  }

  activeOutputs = (): Promise<MemoryContents> => this.readMemory(this.options.inPlace ? WITH : WITHOUT);

  async recall(letter: string): Promise<ProcessorState> {
    if (letter !== WITHOUT) throw NO_LINE(this.profile.model);
    await this.options.onTakenOut();
    return { ...(await this.state()), active: WITHOUT, memories: [this.plain()] };
  }

  rename = () => Promise.reject(NO_LINE(this.profile.model));
  copy = () => Promise.reject(NO_LINE(this.profile.model));
  setOutputs = () => Promise.reject(NO_LINE(this.profile.model));
  beginTransfer = () => Promise.reject(NO_LINE(this.profile.model));
  sendTransfer = () => Promise.reject(NO_LINE(this.profile.model));
  abandonTransfer = () => this.state();

  checksumOf({ outputs, filters }: Pick<LoadRequest, 'outputs' | 'filters'>): number {
    const text = new TextEncoder().encode(JSON.stringify(outputs));
    const sums = filters.map((f) => crc32(new Uint8Array(f.buffer, f.byteOffset, f.byteLength)));
    // 0 is what is there without filters
    return crc32(new TextEncoder().encode(`${crc32(text)} ${sums.join(' ')}`)) || 1;
  }

  heldAfterLoad = (request: Pick<LoadRequest, 'outputs' | 'filters'>): number[] => [this.checksumOf(request)];

  private outputs = (): OutputSettings[] => Array.from({ length: this.options.outputs }, () => plainOutput());

  private plain = (): MemorySummary => ({
    letter: WITHOUT,
    name: 'without filters of ours',
    savedAt: 0,
    checksum: 0,
    hasFilters: false,
    outputs: this.outputs(),
  });

  private placed = ({ name, loadedAt, checksum, outputs }: PutInPlace): MemorySummary => ({
    letter: WITH,
    name,
    savedAt: loadedAt,
    checksum,
    hasFilters: true,
    outputs,
  });
}
