import { open } from 'node:fs/promises';
import mediaInfoFactory from 'mediainfo.js';

/** What is known of a clip or sound; null where its file does not say it. */
export interface ClipFacts {
  readonly durationMs: number | null;
  /** in pixels, as it is shown; null for sound */
  readonly width: number | null;
  readonly height: number | null;
}

/** The largest number that the database keeps. */
const MOST = 2_147_483_647;

/** A number that a file claims, as a whole one; null where it is none above 0, or more than can be kept: files claim what they like. */
export const known = (value: number | undefined): number | null => {
  const whole = Math.round(Number(value));
  return whole > 0 && whole <= MOST ? whole : null;
};

const UNKNOWN: ClipFacts = { durationMs: null, width: null, height: null };

/** The length and size of a clip or sound, read from its head and tail: its frames are not decoded. What cannot be read is not known. */
export async function measureClip(source: string | Uint8Array): Promise<ClipFacts> {
  const file = typeof source === 'string' ? await open(source) : undefined;
  try {
    const size = file ? (await file.stat()).size : source.length;
    const read = async (length: number, at: number): Promise<Uint8Array> => {
      if (!file) return (source as Uint8Array).subarray(at, at + length); // without a file it is bytes
      const { buffer, bytesRead } = await file.read(new Uint8Array(length), 0, length, at);
      return buffer.subarray(0, bytesRead);
    };
    const info = await mediaInfoFactory({ format: 'object' });
    try {
      const { media } = await info.analyzeData(size, read);
      const tracks = media?.track ?? [];
      const [general] = tracks.flatMap((track) => (track['@type'] === 'General' ? [track] : []));
      const [video] = tracks.flatMap((track) => (track['@type'] === 'Video' ? [track] : []));
      const isTurned = Math.round(Number(video?.Rotation ?? 0) / 90) % 2 !== 0;
      const [width, height] = [known(video?.Width), known(video?.Height)];
      return {
        durationMs: known(Number(general?.Duration) * 1000),
        width: isTurned ? height : width,
        height: isTurned ? width : height,
      };
    } finally {
      info.close();
    }
  } catch {
    return UNKNOWN;
  } finally {
    await file?.close();
  }
}
