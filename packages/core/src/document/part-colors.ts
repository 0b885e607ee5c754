import type { Design } from './schema.ts';

/** Calm and distinct: what parts are told apart by, unless they have a colour of their own. */
export const PART_COLORS = ['#9DBFB8', '#C9B27C', '#A9B4BC', '#C7A08F', '#9FB08A', '#B3A3C2', '#8FAFC7', '#C2B6A3'];

/** The colour of a part, #rrggbb. */
export function colorOf(design: Pick<Design, 'parts' | 'partOrder'>, part: string): string {
  return (
    design.parts[part]?.color ?? PART_COLORS[Math.max(0, design.partOrder.indexOf(part)) % PART_COLORS.length]!
  ).toUpperCase();
}

/** As many colours, no two alike: as far round the circle of hues from each other as can be, in three steps of lightness. */
export function distinctColors(count: number): string[] {
  const hues = Math.max(PART_COLORS.length, Math.ceil(count / LIGHTNESS.length));
  return Array.from({ length: count }, (_, i) =>
    hexOf(((i % hues) / hues) * 360, LIGHTNESS[Math.floor(i / hues) % LIGHTNESS.length]!),
  );
}
const LIGHTNESS = [0.68, 0.54, 0.8];
const SATURATION = 0.36;

/** From hue (degrees) and lightness at one saturation; CSS Color Module Level 4, hsl to rgb. */
function hexOf(hue: number, lightness: number): string {
  const reach = SATURATION * Math.min(lightness, 1 - lightness);
  const share = (n: number) => {
    const k = (n + hue / 30) % 12;
    return lightness - reach * Math.max(-1, Math.min(k - 3, 9 - k, 1));
  };
  const two = (n: number) => Math.round(share(n) * 255).toString(16).padStart(2, '0'); // prettier-ignore
  return `#${two(0)}${two(8)}${two(4)}`.toUpperCase();
}
