import { DATUM_PLANES, type Picked } from '@helb/core';

/** Which kinds of slot are filled by picks on the stage, and what is said while they wait. */
export interface Picker {
  /** A sentence without its full stop. */
  readonly hint: string;
  /** One pick fills it; else picks are added and taken away until Enter. */
  readonly single?: boolean;
  /** What can be had without the pointer, as verbs. */
  readonly offers?: readonly { readonly label: string; readonly pick: Picked }[];
}

const pickers = new Map<string, Picker>(
  Object.entries<Picker>({
    regions: { hint: 'Click regions to add or take away, or a flat face' },
    faces: { hint: 'Click faces to add or take away' },
    edges: { hint: 'Click edges, or faces for all their sharp edges, to add or take away' },
    plane: {
      hint: 'Click a plane’s tab or a flat face',
      single: true,
      offers: DATUM_PLANES.map((datum) => ({ label: `Put it on the ${datum}`, pick: { kind: 'datum', datum } })),
    },
    bodies: { hint: 'Click bodies to add or take away' },
    steps: { hint: 'Click faces that the steps made, to add or take steps away' },
    direction: { hint: 'Click a flat face, an edge, a round face or a line of a sketch', single: true },
    point: { hint: 'Click a corner, a point of a sketch, an edge or a face', single: true },
    points: { hint: 'Click points of sketches, round edges or flat faces to add or take away' },
    path: { hint: 'Click edges to add or take away, or a line of a sketch for all of it' },
    paths: { hint: 'Click edges, or a line of a sketch for all of it, to add or take away' },
    sections: { hint: 'Click regions, flat faces or points in their order' },
    sketch: { hint: 'Click a region of a sketch', single: true },
    axis: { hint: 'Click a line of a sketch, an edge or a round face', single: true },
  }),
);

export const pickerOf = (kind: string): Picker | undefined => pickers.get(kind);
