import { wcagContrast, wcagLuminance } from 'culori';
import fc from 'fast-check';
import { contrast, contrastUse, luminance, parseHex, type Hex } from './index.js';

const hex = (text: string): Hex => {
  const found = parseHex(text);
  if (!found) throw new Error(text);
  return found;
};
const anyHex = fc.integer({ min: 0, max: 0xffffff }).map((number) => hex(number.toString(16).padStart(6, '0')));

describe('contrast', () => {
  // WCAG 2.2 defines the ratio to run from 1 (same colour) to 21 (black on white)
  it('runs from 1 to 21', () => {
    expect(contrast(hex('#000'), hex('#fff'))).toBeCloseTo(21, 10);
    expect(contrast(hex('#777777'), hex('#777777'))).toBe(1);
  });

  // W3C technique G18 and the understanding of 1.4.3 name #767676 as the lightest grey that passes on white, #777777 as failing (from memory)
  it('draws the line for text between #767676 and #777777 on white', () => {
    expect(contrastUse(contrast(hex('#767676'), hex('#ffffff')))).toBe('text');
    expect(contrastUse(contrast(hex('#777777'), hex('#ffffff')))).toBe('large_text');
    expect(contrastUse(contrast(hex('#c9dc3a'), hex('#ffffff')))).toBe('neither');
  });

  it('is that of another implementation (culori), for any two colours', () => {
    fc.assert(
      fc.property(anyHex, anyHex, (a, b) => {
        expect(luminance(a)).toBeCloseTo(wcagLuminance(a), 12);
        expect(contrast(a, b)).toBeCloseTo(wcagContrast(a, b), 10);
      }),
    );
  });

  it('is the same either way round and never leaves 1 to 21', () => {
    fc.assert(
      fc.property(anyHex, anyHex, (a, b) => {
        expect(contrast(a, b)).toBe(contrast(b, a));
        expect(contrast(a, b)).toBeGreaterThanOrEqual(1);
        expect(contrast(a, b)).toBeLessThanOrEqual(21.0000001);
      }),
    );
  });

  it('reads colours as people write them, and refuses what is none', () => {
    expect([parseHex('ABC'), parseHex(' #1E5B43 '), parseHex('1e5b43')]).toEqual(['#aabbcc', '#1e5b43', '#1e5b43']);
    expect([parseHex('green'), parseHex('#12345'), parseHex(''), parseHex('#12345g')]).toEqual([
      undefined,
      undefined,
      undefined,
      undefined,
    ]);
  });
});
