/** The regions of sketches: at once where that is soon done, else from a worker, and shown when they come. */
import { findRegions, withHolesOpen, type Region, type RegionMap, type SketchGeometry } from '@helb/core';
import * as Comlink from 'comlink';
import { shallowRef, toRaw } from 'vue';
import type { RegionsWorker } from './regions.worker.ts';

/** Pieces of outline that are arranged in a few milliseconds. */
const SOON_DONE = 250;
/** About so many pieces has a letter. */
const PIECES_A_LETTER = 10;

const known = new WeakMap<SketchGeometry, RegionMap>();
const asked = new WeakMap<SketchGeometry, Promise<RegionMap>>();
const NONE: RegionMap = {
  regions: [],
  openEnds: [],
  gaps: [],
  arrangement: { vertices: [], halves: [], walks: [], openEnds: [] },
};

/** Changes when regions have come that were not there when they were asked for; read it to be told. */
export const regionsCame = shallowRef(0);

/** Would finding them hold the page up? */
export function areSlow(geometry: SketchGeometry): boolean {
  let pieces = 0;
  for (const c of Object.values(geometry.curves))
    pieces += c.kind === 'text' ? PIECES_A_LETTER * c.text.length : c.kind === 'spline' ? c.points.length : 1;
  return pieces > SOON_DONE;
}

/** Regions of a solved sketch, found once per picture; none while they are being found. */
export function regionsFor(geometry: SketchGeometry): RegionMap {
  void regionsCame.value;
  const map = known.get(geometry);
  if (map) return map;
  if (areSlow(geometry)) {
    void regionsWhenFound(geometry);
    return NONE;
  }
  const found = findRegions(geometry);
  known.set(geometry, found);
  return found;
}

const filled = new WeakMap<RegionMap, ReadonlySet<Region>>();

/** Of a sketch’s regions those that are not holes in others. */
export function filledOf(geometry: SketchGeometry): ReadonlySet<Region> {
  const map = regionsFor(geometry);
  let own = filled.get(map);
  if (!own) filled.set(map, (own = new Set(withHolesOpen(map))));
  return own;
}

let worker: { readonly remote: Comlink.Remote<RegionsWorker>; readonly failed: Promise<never> } | null = null;

/** Rejects when the worker fails, or cannot be had; the next time another is started. */
function inWorker(geometry: SketchGeometry): Promise<RegionMap> {
  if (!worker) {
    const own = new Worker(new URL('./regions.worker.ts', import.meta.url), { type: 'module', name: 'regions' });
    const failed = new Promise<never>((_, reject) => {
      own.onerror = (event) => {
        event.preventDefault();
        own.terminate();
        worker = null;
        reject(new Error(event.message));
      };
    });
    // Heard by whoever waits then; by nobody else it need not be.
    failed.catch(() => undefined);
    worker = { remote: Comlink.wrap<RegionsWorker>(own), failed };
  }
  return Promise.race([worker.remote.find(geometry), worker.failed]);
}

/** The same, waited for. */
export function regionsWhenFound(geometry: SketchGeometry): Promise<RegionMap> {
  const map = known.get(geometry);
  if (map) return Promise.resolve(map);
  let coming = asked.get(geometry);
  if (!coming) {
    coming = inWorker(toRaw(geometry))
      // Late is better than never: no regions would look like an open outline.
      .catch(() => findRegions(geometry))
      .then((found) => {
        known.set(geometry, found);
        regionsCame.value++;
        return found;
      });
    asked.set(geometry, coming);
  }
  return coming;
}
