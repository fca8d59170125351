import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { makeSizes, markPicture, measure, PIXEL_LIMIT } from './picture-work';
import { PICTURE_WIDTHS } from './pictures';

const plain = (width: number, height: number, colour: string) =>
  sharp({ create: { width, height, channels: 3, background: colour } })
    .webp()
    .toBuffer();

describe('the mark “not approved”', () => {
  it.each([
    [480, 600, '#ffffff'],
    [480, 600, '#000000'],
    [160, 90, '#778899'],
    [300, 1200, '#ccddee'],
    [960, 100, '#445566'],
    [8, 8, '#ffffff'],
  ])('is seen on a picture of %i × %i in %s, whose size it leaves alone', async (width, height, colour) => {
    const marked = await markPicture(await plain(width, height, colour));
    const { width: after, height: tall } = await sharp(marked).metadata();
    expect([after, tall]).toEqual([width, height]);
    if (width < 100) return; // too small for letters
    const { channels } = await sharp(marked).stats();
    expect(Math.max(...channels.map((channel) => channel.stdev))).toBeGreaterThan(3);
  });
});

describe('the sizes of pictures', () => {
  const folder = mkdtempSync(join(tmpdir(), 'zesting-pictures-'));
  const write = async (name: string, width: number, height: number) => {
    const path = join(folder, name);
    await sharp({ create: { width, height, channels: 3, background: '#778899' } })
      .png()
      .toFile(path);
    return path;
  };

  it('are made of a very tall picture too, which WebP cannot hold', async () => {
    const made = await makeSizes(await write('tall.png', 1000, 20_000), PICTURE_WIDTHS);
    expect(made.map(({ width, marked, mime }) => [width, marked, mime])).toEqual(
      PICTURE_WIDTHS.flatMap((width) => [false, true].map((marked) => [width, marked, width >= 1000 ? 'image/jpeg' : 'image/webp'])),
    );
    for (const { width, bytes } of made) {
      const size = await sharp(bytes).metadata();
      expect([size.width, size.height]).toEqual([Math.min(width, 1000), Math.min(width, 1000) * 20]);
    }
  });

  it('are not made of pictures beyond the limit, nor of damaged ones: the upload is refused', async () => {
    expect(await measure(await write('fine.png', 300, 200))).toEqual({ width: 300, height: 200 });
    const side = Math.ceil(Math.sqrt(PIXEL_LIMIT)) + 1;
    expect(await measure(await write('large.png', side, side))).toBe('too_large');
    const whole = await sharp({
      create: { width: 300, height: 300, channels: 3, background: '#fff', noise: { type: 'gaussian', mean: 128, sigma: 30 } },
    })
      .png()
      .toBuffer();
    expect(await measure(whole.subarray(0, whole.length / 2))).toBe('broken');
    expect(await measure(Buffer.from('no picture'))).toBe('broken');
  });

  it('rise, from a thumbnail to a whole page', () => {
    expect([...PICTURE_WIDTHS]).toEqual([...PICTURE_WIDTHS].sort((a, b) => a - b));
  });
});
