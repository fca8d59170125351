import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { known, measureClip } from './clip-work';

describe('clips and sound', () => {
  const path = (name: string) => join(__dirname, 'test-data', name);

  it.each([
    ['clip.mp4', { durationMs: 4300, width: 180, height: 320 }],
    ['clip.webm', { durationMs: 2000, width: 320, height: 180 }],
  ])('%s says how long it runs and how large it is, from the disk and from memory', async (name, facts) => {
    expect(await measureClip(path(name))).toEqual(facts);
    expect(await measureClip(readFileSync(path(name)))).toEqual(facts);
  });

  it('a sound has a length and no size', async () => {
    const { durationMs, ...size } = await measureClip(path('sound.mp3'));
    expect(size).toEqual({ width: null, height: null });
    // 1.5 seconds in frames of 1152 samples at 44.1 kHz (ISO/IEC 11172-3), with what the encoder puts before and behind
    expect(durationMs).toBeGreaterThanOrEqual(1500);
    expect(durationMs).toBeLessThan(1600);
  });

  it('numbers that a file may claim and the database cannot keep say nothing', () => {
    expect([4300.4, 2 ** 31 - 1].map(known)).toEqual([4300, 2 ** 31 - 1]);
    for (const claimed of [2 ** 31, 4e12, Number.NaN, Number.POSITIVE_INFINITY, 0, -1, undefined]) expect(known(claimed)).toBeNull();
  });

  it('what cannot be read is not known', async () => {
    const unknown = { durationMs: null, width: null, height: null };
    expect(await measureClip(Buffer.from('no clip'))).toEqual(unknown);
    expect(await measureClip(readFileSync(path('clip.mp4')).subarray(0, 30))).toEqual(unknown);
    expect(await measureClip(path('none.mp4')).catch(() => 'thrown')).toBe('thrown'); // a file that is not there is a fault, not a clip
  });
});
