/**
 * The joints of kinematics between two frames, one on each of two links. What may move is told as a chain of
 * elementary motions from the first frame to the second; what must hold is told as rows, each nought when it does.
 */

/** An elementary motion: along x, y or z of the frame reached so far, about its z, on a screw about that, or any turn. */
export type Motion = 'x' | 'y' | 'z' | 'about_z' | 'screw' | 'ball';

/**
 * What holds between frames a and b. With d = origin of b less origin of a:
 * `at_x`: d·xₐ = 0, and so on. `square_xz`: xₐ·z_b = 0. `square_yz`, `square_xy` likewise. `pitch`: d·zₐ = pitch·θ/2π.
 * `along`: zₐ·z_b = cos of a given angle.
 */
export type Row = 'at_x' | 'at_y' | 'at_z' | 'square_xz' | 'square_yz' | 'square_xy' | 'pitch' | 'along';

export const JOINT_KINDS = ['rigid', 'revolute', 'prismatic', 'cylindrical', 'planar', 'spherical', 'pin_in_slot', 'screw'] as const; // prettier-ignore
export type JointKind = (typeof JOINT_KINDS)[number];

/** What brings loose parts together without being a joint of its own. */
export const MATE_KINDS = ['against', 'on_axis', 'parallel', 'square', 'tangent', 'angled', 'at_point'] as const;
export type MateKind = (typeof MATE_KINDS)[number];

/** A link that nothing joins may go anywhere. */
export type PairKind = JointKind | MateKind | 'free';

interface Pairing {
  /** Null of mates, which are held by rows alone. */
  readonly motions: readonly Motion[] | null;
  readonly rows: readonly Row[];
}

const AXIS: readonly Row[] = ['square_xz', 'square_yz'];

export const PAIRINGS: Readonly<Record<PairKind, Pairing>> = {
  rigid: { motions: [], rows: ['at_x', 'at_y', 'at_z', ...AXIS, 'square_xy'] },
  revolute: { motions: ['about_z'], rows: ['at_x', 'at_y', 'at_z', ...AXIS] },
  prismatic: { motions: ['z'], rows: ['at_x', 'at_y', ...AXIS, 'square_xy'] },
  cylindrical: { motions: ['z', 'about_z'], rows: ['at_x', 'at_y', ...AXIS] },
  planar: { motions: ['x', 'y', 'about_z'], rows: ['at_z', ...AXIS] },
  spherical: { motions: ['ball'], rows: ['at_x', 'at_y', 'at_z'] },
  pin_in_slot: { motions: ['x', 'about_z'], rows: ['at_y', 'at_z', ...AXIS] },
  screw: { motions: ['screw'], rows: ['at_x', 'at_y', ...AXIS, 'pitch'] },
  free: { motions: ['x', 'y', 'z', 'ball'], rows: [] },
  against: { motions: null, rows: ['at_z', ...AXIS] },
  on_axis: { motions: null, rows: ['at_x', 'at_y', ...AXIS] },
  parallel: { motions: null, rows: AXIS },
  square: { motions: null, rows: ['along'] },
  tangent: { motions: null, rows: ['along', 'at_z'] },
  angled: { motions: null, rows: ['along'] },
  at_point: { motions: null, rows: ['at_x', 'at_y', 'at_z'] },
};

/** How many coordinates a motion has. */
export const widthOf = (motion: Motion): number => (motion === 'ball' ? 3 : 1);

/** Does its coordinate count as an angle, rad; else it is a length, mm. */
export const isTurn = (motion: Motion): boolean => motion === 'about_z' || motion === 'screw' || motion === 'ball'; // prettier-ignore

/** Coordinates a pair leaves free; 6 of a mate, which is held otherwise. */
export const freedomsOf = (kind: PairKind): number =>
  PAIRINGS[kind].motions?.reduce((sum, m) => sum + widthOf(m), 0) ?? 6;

/** Motions whose value can be told, driven and limited, in order. */
export const drivable = (kind: PairKind): readonly Motion[] =>
  (PAIRINGS[kind].motions ?? []).filter((m) => m !== 'ball');
