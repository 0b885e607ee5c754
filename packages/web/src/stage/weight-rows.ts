/** What something weighs, as rows to be read: numbers in the design’s unit, moments in the one that is chosen. */
import {
  displayFactor, formatNumber, placedAt, poseBack, principalOf, shifted, turnedBack, turnedRows, type DisplayUnits, type Pose, type Vec3, type Weight,
} from '@helb/core'; // prettier-ignore

/** By the side in mm of the square in kg·side². */
export const TURNING = { 'kg·mm²': 1, 'kg·cm²': 100, 'kg·m²': 1e6 } as const;
export type Turning = keyof typeof TURNING;

export interface WeightRow {
  readonly label: string;
  readonly text: string;
}

/** From where centre and moments are counted, and along whose directions. */
export interface CountedFrom {
  readonly pose: Pose;
  readonly label: string;
}

const round = (m: number) => Number(m.toPrecision(6)).toString();
const noZero = (n: number) => (Math.abs(n) < 1e-9 ? 0 : n);

export const shownNumber = (n: number, units: DisplayUnits) => formatNumber(noZero(n), Math.max(3, units.decimals));

/** Where the centre lies. */
export function centerRow(
  { center }: Pick<Weight, 'center'>,
  from: CountedFrom | null,
  units: DisplayUnits,
): WeightRow {
  const per = displayFactor('length', units);
  const at = from ? placedAt(poseBack(from.pose), center) : center;
  return { label: `Centre from ${from?.label ?? 'the origin'}, ${units.length}`, text: at.map((x) => shownNumber(x / per, units)).join(', ') }; // prettier-ignore
}

/** Moments through the centre, or through the place from which is counted. @param weight kg and kg·mm² */
export function momentRows(weight: Weight, from: CountedFrom | null, turning: Turning): WeightRow[] {
  const moment = (m: number) => round(m / TURNING[turning]);
  const off: Vec3 = from ? ([0, 1, 2].map((i) => weight.center[i]! - from.pose.at[i]!) as unknown as Vec3) : [0, 0, 0];
  const about = from ? turnedRows(shifted(weight.rows, weight.volume, off), turnedBack(from.pose.turn)) : weight.rows;
  const { moments, axes } = principalOf(weight.rows);
  return [
    { label: `Moments about X, Y, Z through ${from?.label ?? 'the centre'}`, text: ([0, 1, 2] as const).map((i) => moment(about[i][i])).join(', ') }, // prettier-ignore
    { label: 'Products XY, YZ, ZX', text: [about[0][1], about[1][2], about[2][0]].map((m) => moment(Math.abs(m) < 1e-9 * about[0][0] ? 0 : m)).join(', ') }, // prettier-ignore
    ...([0, 1, 2] as const).map((i) => ({
      label: `${['Smallest', 'Middle', 'Largest'][i]} moment, and its axis`,
      text: `${moment(moments[i])}  (${axes[i].map((x) => formatNumber(noZero(x), 4)).join(', ')})`,
    })),
  ];
}

export const FREE_FACES: WeightRow = { label: 'Free faces', text: 'moments are reckoned numerically, to about 1 part in 1000' }; // prettier-ignore
