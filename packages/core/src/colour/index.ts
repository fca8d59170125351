/** A colour as six hex digits behind `#`, in sRGB. */
export type Hex = string & { readonly hexBrand: never };

/** Reads `#1e5b43`, `1E5B43` or `#abc`; undefined where the text is no colour. */
export function parseHex(text: string): Hex | undefined {
  const digits = text.trim().replace(/^#/, '').toLowerCase();
  if (/^[0-9a-f]{6}$/.test(digits)) return `#${digits}` as Hex; // checked by the pattern
  if (/^[0-9a-f]{3}$/.test(digits)) return `#${[...digits].map((digit) => digit + digit).join('')}` as Hex; // checked by the pattern
  return undefined;
}

const linear = (value: number): number => (value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4);

/** Relative luminance, 0 to 1. @see WCAG 2.2, relative luminance */
export function luminance(colour: Hex): number {
  const [red = 0, green = 0, blue = 0] = [1, 3, 5].map((at) => linear(parseInt(colour.slice(at, at + 2), 16) / 255));
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue;
}

/** Contrast ratio of two luminances, 1 to 21. @see WCAG 2.2, contrast ratio */
export const luminanceRatio = (a: number, b: number): number => (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);

/** Contrast ratio of two colours, 1 to 21, the same either way round. */
export const contrast = (a: Hex, b: Hex): number => luminanceRatio(luminance(a), luminance(b));

/** What a pair of colours may be used for. @see WCAG 2.2, 1.4.3 (4.5 for text, 3 for large text) and 1.4.11 (3 for shapes) */
export type ContrastUse = 'text' | 'large_text' | 'neither';
export const contrastUse = (ratio: number): ContrastUse => (ratio >= 4.5 ? 'text' : ratio >= 3 ? 'large_text' : 'neither');
