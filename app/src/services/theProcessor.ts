import { StandInProcessor, type ProcessorPort } from '../ports/processor';

let current: ProcessorPort | undefined;

/** The processor in the chain; made on first use, so that nothing is shared by visitors of a server. */
export const theProcessor = (): ProcessorPort => (current ??= new StandInProcessor());
