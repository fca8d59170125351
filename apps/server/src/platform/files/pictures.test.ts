import sharp from 'sharp';
import { markPicture, PICTURE_WIDTHS } from './pictures';

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
  it('rise, from a thumbnail to a whole page', () => {
    expect([...PICTURE_WIDTHS]).toEqual([...PICTURE_WIDTHS].sort((a, b) => a - b));
  });
});
