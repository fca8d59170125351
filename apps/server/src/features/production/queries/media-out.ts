import {
  mediaOn,
  type CheckedMedium,
  type ChannelPart,
  type Medium,
  type MediaRules,
  type MediumOut,
  type ShownMedium,
  withCovers,
} from '@zesting/core';
import type { MediumShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { cutKey } from '../../../platform/files/pictures.js';

/** What is known of a file by its bytes. */
export interface FileFacts {
  readonly id: string;
  readonly mime: string;
  readonly bytes: number;
  readonly width: number | null;
  readonly height: number | null;
  readonly durationMs: number | null;
}

/** Facts of files by their ids; what is gone is left out. */
export async function fileFacts(app: App, assetIds: readonly string[]): Promise<ReadonlyMap<string, FileFacts>> {
  const files = await app.read<FileFacts>(
    'select id, mime, bytes::float8 as bytes, width, height, duration_ms as "durationMs" from assets where id = any($1)',
    [[...new Set(assetIds)]],
  );
  return new Map(files.map((file) => [file.id, file]));
}

/** A medium with what is known of its file, as it is shown. */
export function mediumShape({ assetId, name, alt, hash, cover }: Medium, files: ReadonlyMap<string, FileFacts>): MediumShape {
  const { mime = '', width = null, height = null, durationMs = null, bytes = null } = files.get(assetId) ?? {};
  return { assetId, name, alt, hash, ...(cover === undefined ? {} : { cover }), mime, width, height, durationMs, bytes };
}

/** A channel's part as it is shown. */
export const partShape = ({ tags, media, crops, ...words }: ChannelPart) => ({
  ...words,
  tags: [...tags],
  ...(media ? { media: [...media] } : {}),
  ...(crops ? { crops: { ...crops } } : {}),
});

/** A medium with what is known of its file, as core checks it. */
export const checkedMedium = ({ crop, ...medium }: ShownMedium, files: ReadonlyMap<string, FileFacts>): CheckedMedium => ({
  ...mediumShape(medium, files),
  crop,
});

/** A file that goes out on a channel: as it was brought, or what was cut out of it. */
export interface FileOut {
  readonly name: string;
  readonly alt: string;
  /** of the bytes that go out */
  readonly hash: string;
  readonly mime: string;
  readonly bytes: number;
  /** the clip whose cover it is, by the digest of its bytes as they were brought; null: it goes out itself */
  readonly coverOf: string | null;
}

/** What goes out of a content on one channel. */
export interface GoingOutOn {
  readonly media: readonly Medium[];
  readonly part: ChannelPart | undefined;
  readonly rules: Pick<MediaRules, 'mediaLimit'>;
}

/**
 * The files that go out, for each of several contents and channels, in their order there, cut where they are cut there; behind a clip its cover.
 * @returns `being_made` where something is still being cut
 */
export async function mediaOut(app: App, all: readonly GoingOutOn[]): Promise<FileOut[][] | 'being_made'> {
  const shown = all.map(({ media, part, rules }) => withCovers(mediaOn(media, part, rules), media, part));
  const files = await fileFacts(
    app,
    shown.flat().map(({ assetId }) => assetId),
  );
  const wanted = ({ assetId, hash, crop }: ShownMedium) => (crop && files.get(assetId)?.mime.startsWith('image/') ? [{ hash, crop }] : []);
  const cuts = await app.pictures.cutsOf(shown.flat().flatMap(wanted));
  if (!cuts) return 'being_made';
  const fileOut = (medium: MediumOut): FileOut[] => {
    const { name, alt, assetId, hash, coverOf } = medium;
    const file = files.get(assetId);
    const [cut] = wanted(medium).map((each) => cuts.get(cutKey(each)));
    return file ? [{ name, alt, hash: cut?.hash ?? hash, mime: cut?.mime ?? file.mime, bytes: cut?.bytes ?? file.bytes, coverOf }] : [];
  };
  return shown.map((each) => each.flatMap(fileOut));
}
