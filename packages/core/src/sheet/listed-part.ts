/** A row of a parts list as a sheet shows it. */
export interface ListedPart {
  readonly part: string;
  readonly name: string;
  readonly count: number;
  readonly material: string;
  /** kg of one; null without a material. */
  readonly each: number | null;
}
