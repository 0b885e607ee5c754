/**
 * Nominal densities, for mass only. Values are the usual handbook round
 * figures for the group; a real batch differs by a percent or two, wood by more.
 */
export interface Material {
  readonly label: string;
  /** kg per cubic metre. */
  readonly density: number;
}

export const MATERIALS = {
  aluminium: { label: 'aluminium', density: 2700 },
  steel: { label: 'steel', density: 7850 },
  stainless: { label: 'stainless steel', density: 7930 },
  brass: { label: 'brass', density: 8500 },
  bronze: { label: 'bronze', density: 8800 },
  cast_iron: { label: 'cast iron', density: 7200 },
  acetal: { label: 'acetal', density: 1410 },
  nylon: { label: 'nylon', density: 1140 },
  pla: { label: 'PLA print', density: 1240 },
  petg: { label: 'PETG print', density: 1270 },
  birch_ply: { label: 'birch plywood', density: 680 },
  oak: { label: 'oak', density: 720 },
  rubber: { label: 'rubber', density: 1200 },
} as const satisfies Record<string, Material>;

export type MaterialKey = keyof typeof MATERIALS;
export const MATERIAL_KEYS = Object.keys(MATERIALS) as [MaterialKey, ...MaterialKey[]];

const MM3_PER_M3 = 1e9;

/** Mass in kg of a volume in mm³. */
export function massOf(volumeMm3: number, material: MaterialKey): number {
  return (volumeMm3 / MM3_PER_M3) * MATERIALS[material].density;
}
