import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { makeCuts, makeSizes, markPicture, measure, PIXEL_LIMIT } from './picture-work';
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

describe('what is cut out of pictures', () => {
  const crop = { ratio: '1:1', x: 10_000, y: 5000, size: 1000 };
  /** Red on the left, green on the right. */
  const halves = (width: number, height: number) =>
    sharp({ create: { width, height, channels: 3, background: '#ff0000' } }).composite([
      {
        input: { create: { width: width / 2, height, channels: 3, background: '#00ff00' } },
        left: width / 2,
        top: 0,
      },
    ]);
  const colours = async (bytes: Uint8Array) =>
    (await sharp(bytes).stats()).channels.slice(0, 3).map(({ mean }) => Math.round(mean / 16) * 16);

  it.each(['png', 'jpeg', 'webp'] as const)('is of the right place and size, in the format that it was in: %s', async (format) => {
    const [plainCut, marked] = await makeCuts(await halves(400, 200).toFormat(format, { quality: 100 }).toBuffer(), crop);
    expect(plainCut).toMatchObject({ marked: false, mime: `image/${format}`, width: 200, height: 200 });
    const bytes = plainCut?.bytes ?? new Uint8Array();
    expect(await sharp(bytes).metadata()).toMatchObject({ format, width: 200, height: 200 });
    expect(await colours(bytes)).toEqual([0, 256, 0]);
    expect(await sharp(marked?.bytes ?? bytes).metadata()).toMatchObject({ format: 'webp', width: 200, height: 200 });
    const [red] = (await sharp(marked?.bytes ?? bytes).stats()).channels;
    expect(red?.max).toBeGreaterThan(150); // white letters upon green
  });

  it('of one that lies on its side is cut as it is seen', async () => {
    // orientation 6: a quarter turn clockwise, so that red is above and green below (Exif 2.32, tag 274)
    const onItsSide = await halves(400, 200).jpeg({ quality: 100 }).withMetadata({ orientation: 6 }).toBuffer();
    expect(await measure(onItsSide)).toEqual({ width: 200, height: 400 });
    const [below] = await makeCuts(onItsSide, { ...crop, y: 10_000 });
    expect(below).toMatchObject({ width: 200, height: 200 });
    expect(await colours(below?.bytes ?? new Uint8Array())).toEqual([0, 256, 0]);
    expect((await sharp(below?.bytes).metadata()).orientation).toBeUndefined();
  });

  it('goes on moving where it moves', async () => {
    const frames = await Promise.all(['#ff0000', '#0000ff'].map((colour) => plain(60, 40, colour)));
    const moving = await sharp(frames, { join: { animated: true } })
      .gif({ delay: [100, 300] })
      .toBuffer();
    const [cut] = await makeCuts(moving, crop);
    expect(cut).toMatchObject({ mime: 'image/gif', width: 40, height: 40 });
    expect(await sharp(cut?.bytes, { animated: true }).metadata()).toMatchObject({
      pages: 2,
      delay: [100, 300],
      width: 40,
      pageHeight: 40,
    });
  });
});
