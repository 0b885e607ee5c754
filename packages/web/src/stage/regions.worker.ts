/** Finds the regions of sketches that would hold the page up. */
import { findRegions, type RegionMap, type SketchGeometry } from '@helb/core';
import * as Comlink from 'comlink';

const api = { find: (geometry: SketchGeometry): RegionMap => findRegions(geometry) };
export type RegionsWorker = typeof api;

Comlink.expose(api);
