/** Colours as files of solids hold them. */

/** From sRGB, as colours are written (#rrggbb), to linear shares of red, green and blue, 0 to 1 (IEC 61966-2-1). */
export function linearColor(color: string): [number, number, number] {
  const share = (at: number) => {
    const c = parseInt(color.slice(at, at + 2), 16) / 255;
    return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
  };
  return [share(1), share(3), share(5)];
}
