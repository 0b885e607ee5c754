/** Finds what of an assembly can still move: of a thousand parts it takes seconds. */
import { freedomsOfAssembly, jointedFrom, type Freedoms, type JointedData } from '@helb/core';
import * as Comlink from 'comlink';

const api = { find: (data: JointedData): Freedoms => freedomsOfAssembly(jointedFrom(data)) };
export type FreedomsWorker = typeof api;

Comlink.expose(api);
