/** A colour of sRGB, 0 to 255. */
export type Rgb = readonly [red: number, green: number, blue: number];

const linear = Float64Array.from({ length: 256 }, (_, value) => {
  const share = value / 255;
  return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
});

/** Relative luminance, 0 (black) to 1 (white). Source: WCAG 2.2, definition of relative luminance. */
export const luminanceOf = ([red, green, blue]: Rgb): number =>
  0.2126 * (linear[Math.round(red)] ?? 0) +
  0.7152 * (linear[Math.round(green)] ?? 0) +
  0.0722 * (linear[Math.round(blue)] ?? 0);

/** Contrast of two luminances, 1 (the same) to 21. Source: WCAG 2.2, definition of contrast ratio. */
export const contrastOf = (a: number, b: number): number => (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);

/** A colour as it is written on the web, `#b03a62`. */
export const writeColour = (colour: Rgb): string =>
  `#${colour.map((one) => Math.round(one).toString(16).padStart(2, '0')).join('')}`;

/** A colour as it is written on the web, `#b03a62`; null where it is none. */
export function readColour(text: string): Rgb | null {
  const [, digits] = /^#?([0-9a-f]{6})$/i.exec(text.trim()) ?? [];
  if (!digits) return null;
  const at = (from: number) => Number.parseInt(digits.slice(from, from + 2), 16);
  return [at(0), at(2), at(4)];
}
