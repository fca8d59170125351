import { mkdtempSync, readdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { text } from 'node:stream/consumers';
import sharp from 'sharp';
import { readConfig } from '../config/config.js';
import { PictureProcess } from './picture-process.js';
import { Files } from './files.js';

describe('stored files', () => {
  const folder = mkdtempSync(join(tmpdir(), 'zesting-files-'));
  const pictures = new PictureProcess();
  const files = new Files(readConfig({ ZESTING_FILES: folder, ZESTING_KEY: 'test' }), pictures, { read: () => Promise.resolve([]) });
  afterAll(() => pictures.onApplicationShutdown());

  it('lie under the hash of their bytes, once, with their size', async () => {
    const bytes = await sharp({ create: { width: 30, height: 20, channels: 3, background: '#123' } })
      .webp()
      .toBuffer();
    const [one, two] = [await files.store(bytes), await files.store(bytes)];
    expect(one).toEqual(two);
    expect(one).toMatchObject({ ok: true, value: { mime: 'image/webp', width: 30, height: 20, bytes: bytes.length } });
    const hash = one.ok ? one.value.hash : '';
    expect(readdirSync(join(folder, hash.slice(0, 2)))).toEqual([hash]);
  });

  it('take plain text as text, and read back what was stored', async () => {
    const stored = await files.store(Buffer.from('Zwölf Farne\n'));
    expect(stored).toMatchObject({ ok: true, value: { mime: 'text/plain', width: null } });
    expect(await text(files.read(stored.ok ? stored.value.hash : ''))).toBe('Zwölf Farne\n');
  });

  it.each([
    ['a page', '<!DOCTYPE html><p>x'],
    ['a drawing with a script', '<svg onload="x">'],
    ['a program', '\u007fELF\u0002\u0001\u0001'],
    ['nothing', ''],
  ])('are not %s', async (_what, content) => {
    expect(await files.store(Buffer.from(content))).toEqual({ ok: false, failure: { code: 'file.type_refused' } });
  });

  it('are not pictures that end in the middle', async () => {
    const whole = await sharp({ create: { width: 300, height: 300, channels: 3, background: '#456' } })
      .png({ compressionLevel: 0 })
      .toBuffer();
    expect(await files.store(whole.subarray(0, whole.length / 2))).toEqual({ ok: false, failure: { code: 'file.broken' } });
  });
});
