export { loadKernel, type LoadOptions } from './load.ts';
export type { OcctKernel } from './occt-kernel.ts';
