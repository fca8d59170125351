import fc from 'fast-check';
import { boxOf, cropAround, cropOfArea, hasShape, isCrop, keptOf, LARGEST_CROP, shapeOf, SMALLEST_CROP, type Crop } from './index.js';

/** Worked by hand with pencil and paper. */
describe('what is cut out, worked by hand', () => {
  it.each<[string, { width: number; height: number }, Crop, { left: number; top: number; width: number; height: number }]>([
    // 3000 × 2000 at 4:5: all of the height, 2000 × 4/5 = 1600 across; (3000 − 1600) / 2 = 700 on either side
    ['upright out of wide', { width: 3000, height: 2000 }, cropAround('4:5'), { left: 700, top: 0, width: 1600, height: 2000 }],
    // the point at a quarter: 750 − 800 lies left of the edge
    ['at the edge', { width: 3000, height: 2000 }, cropAround('4:5', { x: 2500, y: 5000 }), { left: 0, top: 0, width: 1600, height: 2000 }],
    // half as large around the middle of the right half: 800 × 1000, 2250 − 400 = 1850, 1000 − 500 = 500
    [
      'half as large',
      { width: 3000, height: 2000 },
      { ratio: '4:5', x: 7500, y: 5000, size: 500 },
      { left: 1850, top: 500, width: 800, height: 1000 },
    ],
    // full-screen upright, 9:16 (common practice), out of a square of 1080: 1080 × 9/16 = 607.5, as whole pixels 608; 540 − 304 = 236
    ['full-screen upright', { width: 1080, height: 1080 }, cropAround('9:16'), { left: 236, top: 0, width: 608, height: 1080 }],
    // wide out of upright: 1080 × 9/16 = 607.5 → 608 down, at the very top
    ['from the top', { width: 1080, height: 1920 }, cropAround('16:9', { x: 5000, y: 0 }), { left: 0, top: 0, width: 1080, height: 608 }],
    ['one pixel', { width: 1, height: 1 }, cropAround('16:9'), { left: 0, top: 0, width: 1, height: 1 }],
  ])('%s', (_, picture, crop, box) => {
    expect(boxOf(picture, crop)).toEqual(box);
  });
});

describe('crops', () => {
  const sides = fc.record({ width: fc.integer({ min: 1, max: 12_000 }), height: fc.integer({ min: 1, max: 12_000 }) });
  const ratios = fc.constantFrom('1:1', '4:5', '9:16', '16:9', '3:2', '2:3', '2:1', '99:1');
  const crops: fc.Arbitrary<Crop> = fc.record({
    ratio: ratios,
    x: fc.integer({ min: 0, max: 10_000 }),
    y: fc.integer({ min: 0, max: 10_000 }),
    size: fc.integer({ min: SMALLEST_CROP, max: LARGEST_CROP }),
  });

  it('stay within the picture, hold the shape, and keep the focus in view', () => {
    fc.assert(
      fc.property(sides, crops, (picture, crop) => {
        const { left, top, width, height } = boxOf(picture, crop);
        expect([left, top, width, height].every(Number.isInteger)).toBe(true);
        expect(Math.min(left, top)).toBeGreaterThanOrEqual(0);
        expect(Math.min(width, height)).toBeGreaterThanOrEqual(1);
        expect(left + width).toBeLessThanOrEqual(picture.width);
        expect(top + height).toBeLessThanOrEqual(picture.height);
        // whole pixels: never further from the shape than one of them
        const shape = shapeOf(crop.ratio);
        if (width > 1 && height > 1)
          expect(Math.abs(width - (height * shape.width) / shape.height)).toBeLessThanOrEqual(1 + shape.width / shape.height);
        const [x, y] = [(crop.x * picture.width) / 10_000, (crop.y * picture.height) / 10_000];
        expect(x).toBeGreaterThanOrEqual(left - 1);
        expect(x).toBeLessThanOrEqual(left + width + 1);
        expect(y).toBeGreaterThanOrEqual(top - 1);
        expect(y).toBeLessThanOrEqual(top + height + 1);
      }),
    );
  });

  it('no larger one of the shape has room', () => {
    fc.assert(
      fc.property(sides, ratios, (picture, ratio) => {
        const { width, height } = boxOf(picture, cropAround(ratio));
        expect(width === picture.width || height === picture.height).toBe(true);
      }),
    );
  });

  it('are found again by what they keep', () => {
    const picture = { width: 6000, height: 4000 };
    fc.assert(
      fc.property(
        crops.filter(({ ratio }) => ratio !== '99:1'),
        (crop) => {
          const kept = keptOf(picture, crop);
          const again = keptOf(picture, cropOfArea(picture, crop.ratio, kept));
          for (const side of ['x', 'y', 'width', 'height'] as const) expect(Math.abs(again[side] - kept[side])).toBeLessThanOrEqual(12);
        },
      ),
    );
  });

  it('are told apart from what is none', () => {
    expect(isCrop(cropAround('4:5'))).toBe(true);
    for (const broken of [
      { ratio: '0:5' },
      { ratio: '4:5:6' },
      { x: -1 },
      { y: 10_001 },
      { x: 0.5 },
      { size: 99 },
      { size: 1001 },
      { size: NaN },
    ])
      expect(isCrop({ ...cropAround('4:5'), ...broken })).toBe(false);
    expect(() => shapeOf('wide')).toThrow('not a shape');
  });

  it('a pixel or two make no other shape', () => {
    expect(hasShape({ width: 608, height: 1080 }, '9:16')).toBe(true);
    expect(hasShape({ width: 1080, height: 1350 }, '4:5')).toBe(true);
    expect(hasShape({ width: 1080, height: 1080 }, '4:5')).toBe(false);
    expect(hasShape({ width: 1000, height: 1015 }, '1:1')).toBe(false);
  });
});
