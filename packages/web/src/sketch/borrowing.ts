/** Taking edges, faces and outlines of the part into the open sketch. */
import {
  addBorrowed,
  namedBody,
  refOfBody,
  refOfEdge,
  refOfFace,
  type BodyView,
  type BorrowSource,
  type SketchGeometry,
} from '@helb/core';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import type { Hit } from '../stage/scene.ts';

/** What the stage can say about the bodies behind a sketch. */
export interface BodiesBehind {
  hit(x: number, y: number): Hit | null;
  body(id: string): BodyView | undefined;
  bodies(): readonly BodyView[];
  pixelOf(p: readonly [number, number, number]): [number, number];
  /** Borrow the part beside this one that lies there. Resolves true once it can be taken from. */
  bringIn(hit: Hit): Promise<boolean>;
}

export type BorrowKind = 'borrow' | 'borrow section' | 'borrow silhouette';
const VERTEX_REACH_PX = 9;
const CLOSED_MM = 1e-6;

export function useBorrowing(change: (label: string, run: (sketch: SketchGeometry) => void) => boolean) {
  const design = useDesign();
  const session = useSession();
  const evaluation = useEvaluation();
  let behind: BodiesBehind | null = null;

  /** The stage says what lies behind the sketch. */
  function look(through: BodiesBehind | null): void {
    behind = through;
  }

  function sourceAt(kind: BorrowKind, x: number, y: number): BorrowSource | null {
    const hit = behind?.hit(x, y);
    const body = hit && behind?.body(hit.body);
    if (!hit || !body) return null;
    const all = behind!.bodies().map(namedBody);
    if (kind === 'borrow section') return { kind: 'section', body: refOfBody(namedBody(body), all) };
    if (kind === 'borrow silhouette') return { kind: 'silhouette', body: refOfBody(namedBody(body), all) };
    if (hit.kind === 'face') return { kind: 'face', face: refOfFace(namedBody(body), hit.index, all) };
    const { edgePoints, edgeRanges } = body.mesh;
    const [first, count] = [edgeRanges[hit.index * 2]!, edgeRanges[hit.index * 2 + 1]!];
    const at = (i: number): [number, number, number] => [
      edgePoints[i * 3]!,
      edgePoints[i * 3 + 1]!,
      edgePoints[i * 3 + 2]!,
    ];
    const edge = refOfEdge(namedBody(body), hit.index, all);
    // Where a whole circle begins is no end of it.
    const closed = Math.hypot(...at(first).map((c, k) => c - at(first + count - 1)[k]!)) < CLOSED_MM;
    if (closed) return { kind: 'edge', edge };
    for (const [end, p] of [
      ['from', at(first)],
      ['to', at(first + count - 1)],
    ] as const) {
      const [px, py] = behind!.pixelOf(p);
      if (Math.hypot(px - x, py - y) < VERTEX_REACH_PX) return { kind: 'vertex', edge, end };
    }
    return { kind: 'edge', edge };
  }

  async function click(kind: BorrowKind, x: number, y: number): Promise<void> {
    const hit = behind?.hit(x, y);
    if (hit && !behind!.body(hit.body) && !(await behind!.bringIn(hit)) && session.notice !== null) return;
    const source = sourceAt(kind, x, y);
    if (!source) {
      session.notice = 'There is no edge or face of the part here; click one that shows behind the sketch.';
      return;
    }
    const { activePart: part, sketching: step } = session;
    if (!part || !step || !design.design) return;
    const pieces = await evaluation
      .on(design.design)
      .borrow(part, step, source)
      .catch((error: Error) => `This could not be borrowed: ${error.message}`);
    if (session.sketching !== step) return;
    if (typeof pieces === 'string') session.notice = pieces;
    else if (pieces.length === 0) session.notice = 'Nothing of this can be seen on the sketch’s plane.';
    else change('Borrow from the part', (sketch) => void addBorrowed(sketch, source, pieces));
  }

  return { look, click };
}
