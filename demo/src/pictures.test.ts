import sharp from 'sharp';
import { drawPicture } from './pictures';

describe('the pictures of the demo', () => {
  it('are real PNG files of the size asked for', async () => {
    const { format, width, height } = await sharp(await drawPicture('loaves', 'rye', 3, 540, 675)).metadata();
    expect([format, width, height]).toEqual(['png', 540, 675]);
  });

  it('differ by their seed', async () => {
    expect((await drawPicture('leaves', 'fern', 1, 108, 135)).equals(await drawPicture('leaves', 'fern', 2, 108, 135))).toBe(false);
  });
});
