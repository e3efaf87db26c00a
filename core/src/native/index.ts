/** WebAssembly, where the machine has it. */
export { nativeInstance, type Native } from './nativeInstance.js';
