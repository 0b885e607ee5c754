/**
 * Threads and the holes that go with them. Lengths mm.
 *   metric diameters and pitches: ISO 261 and ISO 262
 *   metric clearance holes: ISO 273 (fine, medium, coarse series: here close, normal, free)
 *   metric tapping drills: ISO 2306; of fine pitches the nominal diameter less the pitch
 *   heads: socket head screws ISO 4762 in counterbores of DIN 974-1, countersunk screws ISO 10642 (90°)
 *   unified diameters and pitches: ASME B1.1; clearance holes: ASME B18.2.8; tapping drills: diameter less the pitch
 * A table is no drawing: the hole a maker drills follows local rules and the screw at hand.
 */
export type Fit = 'close' | 'normal' | 'free';

export interface ThreadSize {
  readonly label: string;
  readonly diameter: number;
  readonly pitch: number;
  /** The hole that is tapped. */
  readonly tapping: number;
  readonly clearance: Readonly<Record<Fit, number>>;
  /** Diameter and depth of the counterbore for a socket head, where the table has one. */
  readonly counterbore: { readonly diameter: number; readonly depth: number } | null;
  /** Theoretical diameter of the countersunk head, 90°, where the table has one. */
  readonly countersink: number | null;
}

/** diameter: pitch, tapping drill, clearance close, normal, free, counterbore, countersunk head */
const METRIC: readonly (readonly [number, number, number, number, number, number, number | null, number | null])[] = [
  [1.6, 0.35, 1.25, 1.7, 1.8, 2, null, null],
  [2, 0.4, 1.6, 2.2, 2.4, 2.6, null, null],
  [2.5, 0.45, 2.05, 2.7, 2.9, 3.1, null, null],
  [3, 0.5, 2.5, 3.2, 3.4, 3.6, 6.5, 6.72],
  [4, 0.7, 3.3, 4.3, 4.5, 4.8, 8, 8.96],
  [5, 0.8, 4.2, 5.3, 5.5, 5.8, 10, 11.2],
  [6, 1, 5, 6.4, 6.6, 7, 11, 13.44],
  [8, 1.25, 6.8, 8.4, 9, 10, 15, 17.92],
  [10, 1.5, 8.5, 10.5, 11, 12, 18, 22.4],
  [12, 1.75, 10.2, 13, 13.5, 14.5, 20, 26.88],
  [14, 2, 12, 15, 15.5, 16.5, null, null],
  [16, 2, 14, 17, 17.5, 18.5, 26, 33.6],
  [18, 2.5, 15.5, 19, 20, 21, null, null],
  [20, 2.5, 17.5, 21, 22, 24, 33, 40.32],
  [22, 2.5, 19.5, 23, 24, 26, null, null],
  [24, 3, 21, 25, 26, 28, 40, null],
  [27, 3, 24, 28, 30, 32, null, null],
  [30, 3.5, 26.5, 31, 33, 35, 50, null],
  [33, 3.5, 29.5, 34, 36, 38, null, null],
  [36, 4, 32, 37, 39, 42, 58, null],
];

const FINE: readonly (readonly [diameter: number, pitch: number])[] = [
  [8, 1], [10, 1.25], [10, 1], [12, 1.5], [12, 1.25], [14, 1.5], [16, 1.5], [18, 1.5], [20, 1.5], [22, 1.5], [24, 2], [27, 2], [30, 2], [33, 2], [36, 3],
]; // prettier-ignore

const INCH = 25.4;
/** name, diameter in inches, threads per inch coarse and fine, clearance close, normal, free in inches */
const UNIFIED: readonly (readonly [string, number, number, number, number, number, number])[] = [
  ['#4', 0.112, 40, 48, 0.12, 0.1285, 0.144],
  ['#6', 0.138, 32, 40, 0.144, 0.154, 0.17],
  ['#8', 0.164, 32, 36, 0.17, 0.18, 0.196],
  ['#10', 0.19, 24, 32, 0.196, 0.206, 0.221],
  ['1/4', 1 / 4, 20, 28, 17 / 64, 9 / 32, 19 / 64],
  ['5/16', 5 / 16, 18, 24, 21 / 64, 11 / 32, 23 / 64],
  ['3/8', 3 / 8, 16, 24, 25 / 64, 13 / 32, 27 / 64],
  ['7/16', 7 / 16, 14, 20, 29 / 64, 15 / 32, 31 / 64],
  ['1/2', 1 / 2, 13, 20, 17 / 32, 9 / 16, 39 / 64],
  ['5/8', 5 / 8, 11, 18, 21 / 32, 11 / 16, 47 / 64],
  ['3/4', 3 / 4, 10, 16, 25 / 32, 13 / 16, 29 / 32],
  ['7/8', 7 / 8, 9, 14, 29 / 32, 15 / 16, 33 / 32],
  ['1', 1, 8, 12, 33 / 32, 35 / 32, 37 / 32],
];

/** DIN 974-1: how much deeper a counterbore is than the head is high. */
function sunkBy(diameter: number): number {
  if (diameter <= 6) return 0.4;
  if (diameter <= 20) return 0.6;
  return diameter <= 27 ? 0.8 : 1;
}

function metric(row: (typeof METRIC)[number], pitch = row[1], tapping = row[2]): ThreadSize {
  const [diameter, coarse, , close, normal, free, bore, head] = row;
  return {
    label: pitch === coarse ? `M${diameter}` : `M${diameter} × ${pitch}`,
    diameter,
    pitch,
    tapping,
    clearance: { close, normal, free },
    // A socket head is as high as the screw is thick.
    counterbore: bore === null ? null : { diameter: bore, depth: diameter + sunkBy(diameter) },
    countersink: head,
  };
}

function unified(
  [name, size, , , close, normal, free]: (typeof UNIFIED)[number],
  perInch: number,
  series: string,
): ThreadSize {
  const [diameter, pitch] = [size * INCH, INCH / perInch];
  return {
    label: `${name}-${perInch} ${series}`,
    diameter,
    pitch,
    tapping: diameter - pitch,
    clearance: { close: close * INCH, normal: normal * INCH, free: free * INCH },
    counterbore: null,
    countersink: null,
  };
}

/** Every size by its key. */
export const THREADS: Readonly<Record<string, ThreadSize>> = Object.fromEntries([
  ...METRIC.map((row) => [`M${row[0]}`, metric(row)] as const),
  ...FINE.map(
    ([d, pitch]) =>
      [
        `M${d}x${pitch}`,
        metric(
          METRIC.find((r) => r[0] === d)!,
          pitch,
          d - pitch,
        ),
      ] as const,
  ),
  ...UNIFIED.map((row) => [`${row[0]}-${row[2]}`, unified(row, row[2], 'UNC')] as const),
  ...UNIFIED.map((row) => [`${row[0]}-${row[3]}`, unified(row, row[3], 'UNF')] as const),
]);
