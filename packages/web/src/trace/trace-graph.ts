/** A trace as a small graph: what a number comes from to its left, what hangs on it to its right. */
import dagre from '@dagrejs/dagre';
import type { Ledger, Trace } from '@helb/core';

export interface GraphNode {
  readonly ref: string;
  readonly name: string;
  readonly value: string;
  /** Centre and size, px. */
  readonly x: number;
  readonly y: number;
  readonly width: number;
}

export interface TraceGraph {
  readonly width: number;
  readonly height: number;
  readonly nodes: readonly GraphNode[];
  readonly lines: readonly { readonly key: string; readonly d: string }[];
  /** Dimensions of the trace that found no room. */
  readonly left: number;
}

export const NODE_HEIGHT = 30;
const CHARACTER = 6.1;
const MOST_NODES = 40;
const LONGEST_NAME = 32;

export function traceGraph(ledger: Ledger, trace: Trace): TraceGraph {
  const far = [...trace.above, ...trace.below].sort((a, b) => a.away - b.away);
  const shown = new Set([trace.ref, ...far.slice(0, MOST_NODES - 1).map((l) => l.ref)]);
  const graph = new dagre.graphlib.Graph().setGraph({ rankdir: 'LR', nodesep: 6, ranksep: 20, marginx: 2, marginy: 2 });
  graph.setDefaultEdgeLabel(() => ({}));
  for (const ref of shown) {
    const entry = ledger.index.byReference(ref)!;
    const long = entry.owner.level === 'slot' ? entry.path.slice(-2).join('.') : entry.name;
    const name = long.length > LONGEST_NAME ? `${long.slice(0, LONGEST_NAME - 1)}…` : long;
    const value = ledger.format(ledger.valueOfEntry(entry));
    const width = Math.max(name.length, value.length) * CHARACTER + 14;
    graph.setNode(ref, { width, height: NODE_HEIGHT, name, value });
  }
  for (const ref of shown)
    for (const used of ledger.dependenciesOf(ledger.index.byReference(ref)!))
      if (shown.has(used)) graph.setEdge(used, ref);
  dagre.layout(graph);
  const { width = 0, height = 0 } = graph.graph();
  return {
    width,
    height,
    nodes: graph.nodes().map((ref) => {
      const { name, value, x, y, width: w } = graph.node(ref) as GraphNode;
      return { ref, name, value, x, y, width: w };
    }),
    lines: graph.edges().map((e) => ({
      key: `${e.v} ${e.w}`,
      d: graph
        .edge(e)
        .points.map(
          (p: { x: number; y: number }, i: number) => `${i === 0 ? 'M' : 'L'}${p.x.toFixed(1)} ${p.y.toFixed(1)}`,
        )
        .join(''),
    })),
    left: far.length + 1 - shown.size,
  };
}
