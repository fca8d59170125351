import fc from 'fast-check';
import sharp from 'sharp';
import { withoutPlace } from './without-place';

/** A picture of a few colours as a camera would write it: with a place, a device, and lying on its side. */
const taken = (format: 'jpeg' | 'png' | 'webp') =>
  sharp({ create: { width: 60, height: 40, channels: 3, background: '#336699', noise: { type: 'gaussian', mean: 120, sigma: 40 } } })
    .toFormat(format)
    .withMetadata({ orientation: 6 })
    .withExifMerge({
      IFD0: { Make: 'Camera works', Model: 'Secret device' },
      IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '51/1 30/1 0/1', GPSLongitudeRef: 'W', GPSLongitude: '0/1 7/1 0/1' },
    })
    .withXmp('<x:xmpmeta xmlns:x="adobe:ns:meta/">place</x:xmpmeta>')
    .toBuffer();
const pixels = (bytes: Buffer) => sharp(bytes).raw().toBuffer();

describe('a picture that comes in', () => {
  it.each(['jpeg', 'webp', 'png'] as const)('as %s loses where it was taken and by what, and nothing else', async (format) => {
    const original = await taken(format);
    expect(original.includes('Secret device')).toBe(true);
    if (format !== 'png') expect((await sharp(original).metadata()).orientation).toBe(6);
    const stripped = withoutPlace(original, `image/${format}`);
    expect(stripped.length).toBeLessThan(original.length);
    for (const words of ['Secret device', 'Camera works', 'xmpmeta']) expect(stripped.includes(words)).toBe(false);
    expect((await pixels(stripped)).equals(await pixels(original))).toBe(true);
    const { orientation, format: kind, width } = await sharp(stripped).metadata();
    expect([kind, width]).toEqual([format, 60]);
    if (format !== 'png') expect(orientation).toBe(6); // the way up stays; in PNG files cameras do not say it
    expect(withoutPlace(stripped, `image/${format}`).equals(stripped)).toBe(true);
  });

  it('keeps its colour profile', async () => {
    const profiled = await sharp({ create: { width: 8, height: 8, channels: 3, background: '#f00' } })
      .jpeg()
      .withIccProfile('p3')
      .withExif({ IFD0: { Model: 'Secret device' } })
      .toBuffer();
    const { icc } = await sharp(withoutPlace(profiled, 'image/jpeg')).metadata();
    expect(icc?.equals((await sharp(profiled).metadata()).icc ?? Buffer.alloc(0))).toBe(true);
  });

  it('of which the file says what is not so is given back, whatever it is', async () => {
    const whole = await taken('jpeg');
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: whole.length }),
        fc.uint8Array({ maxLength: 40 }),
        fc.constantFrom('jpeg', 'png', 'webp'),
        (cut, more, format) => {
          const broken = Buffer.concat([whole.subarray(0, cut), more]);
          expect(Buffer.isBuffer(withoutPlace(broken, `image/${format}`))).toBe(true);
        },
      ),
    );
  });
});
