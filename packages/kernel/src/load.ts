import type { OpenCascadeInstance } from 'replicad-opencascadejs';
import initialise from 'replicad-opencascadejs';
import { mendDeletion } from './deletion.ts';
import { OcctKernel } from './occt-kernel.ts';

export interface LoadOptions {
  /** Address of the kernel's .wasm file; needed in a browser, where the bundler decides it. */
  readonly wasmUrl?: string;
}

/** Start a kernel. Takes about half a second; each kernel has a heap of its own. */
export async function loadKernel(options: LoadOptions = {}): Promise<OcctKernel> {
  const load = async (): Promise<OpenCascadeInstance> => {
    const oc = await initialise({
      ...(options.wasmUrl ? { locateFile: () => options.wasmUrl } : {}),
      // The kernel's own chatter is not for anyone's console.
      print: () => {},
      printErr: () => {},
    });
    mendDeletion(oc);
    return oc;
  };
  return new OcctKernel(await load(), load);
}
