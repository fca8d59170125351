import type { Response } from 'express';
import { SHARED_PART, type Crop } from '@zesting/core';
import type { App } from '../../platform/app.js';
import { PICTURE_WIDTHS, type PictureWidth } from '../../platform/files/pictures.js';
import { Problem } from '../../platform/http/problem.js';
import { loadSources, signOffOf } from '../planning/index.js';

/** Shown in the page; everything else is offered as a download. */
const SHOWN = /^(image\/(png|jpeg|webp|gif)|video\/(mp4|webm)|audio\/(mpeg|wav))$/;

/** What the server makes of pictures. */
const ENDINGS: Readonly<Record<string, string>> = { 'image/webp': '.webp', 'image/jpeg': '.jpg' };

interface AssetRow {
  id: string;
  piece_id: string | null;
  hash: string;
  name: string;
  mime: string;
}

/** How a file is asked for. */
export interface Asked {
  /** a width in pixels; the next larger one of those that are made, the file itself without it */
  readonly width?: string | undefined;
  /** whoever makes or checks the piece; undefined for contacts */
  readonly makerId?: string | undefined;
  /** of the brand sheet: no content of a piece */
  readonly isBrand?: boolean;
  /** what it is to be kept as; without it, it is shown under its own name */
  readonly keptAs?: string | undefined;
  /** how it is cut, and on which channel: that channel's part must be approved too */
  readonly cut?: { readonly crop: Crop; readonly channelId: string } | undefined;
  /** what the browser says it is for: within a page, where the mark stands beside it, a picture is shown clean */
  readonly destination?: string | undefined;
}

/**
 * Sends a file's bytes with headers under which no browser runs them. Access was decided before. A picture of a piece that the
 * client has not approved carries the mark *not approved* where it is opened by itself or downloaded, for all but those who make or check the
 * piece. Within a page it is shown clean: nobody judges what is written across. @see Fetch Metadata, Sec-Fetch-Dest
 */
export async function sendAsset(app: App, assetId: string, response: Response, asked: Asked = {}): Promise<void> {
  const [asset] = await app.read<AssetRow>('select id, piece_id, hash, name, mime from assets where id = $1', [assetId]);
  if (!asset) throw Problem.of('access.not_found');
  const isPicture = asset.mime.startsWith('image/');
  const cut = isPicture ? asked.cut : undefined;
  const marked =
    isPicture && !asked.isBrand && asked.destination !== 'image' && (await isToBeMarked(app, asset, asked.makerId, cut?.channelId));
  const width = widthOf(asked.width) ?? (marked ? (1920 as const) : undefined);
  const made = cut
    ? (await app.pictures.cutsOf([{ hash: asset.hash, crop: cut.crop }], marked))?.values().next().value
    : isPicture && width !== undefined
      ? await app.pictures.sizeOf(asset.id, width, marked)
      : undefined;
  if ((marked || cut) && !made) throw Problem.of('file.being_made');
  const named = { ...asset, name: asked.keptAs ?? asset.name };
  const sent =
    made && made.mime !== asset.mime
      ? { ...made, name: named.name.replace(/\.\w+$/, ENDINGS[made.mime] ?? '.jpg') }
      : { ...named, ...made };
  await sendFile(app, sent, response, asked.keptAs !== undefined);
}

/** Sends stored bytes with headers under which no browser runs them. @param isKept whether the browser is to keep them as a file */
export async function sendFile(
  app: App,
  { hash, mime, name }: Pick<AssetRow, 'hash' | 'mime' | 'name'>,
  response: Response,
  isKept = false,
): Promise<void> {
  response.set({
    'Content-Type': mime,
    Vary: 'Sec-Fetch-Dest',
    'Content-Disposition': `${SHOWN.test(mime) && !isKept ? 'inline' : 'attachment'}; filename*=UTF-8''${encodeURIComponent(name)}`,
    'X-Content-Type-Options': 'nosniff',
    'Content-Security-Policy': "default-src 'none'; sandbox",
    // asked anew each time, since an approval takes the mark away; unchanged bytes are not sent again
    'Cache-Control': 'private, no-cache',
    ETag: `"${hash}"`,
  });
  await new Promise<void>((resolve, reject) =>
    response.sendFile(
      app.files.pathOf(hash),
      { dotfiles: 'allow', etag: false, lastModified: false, cacheControl: false },
      // the other end may hang up at any time: that is no failure of ours
      (error?: Error & { code?: string }) => {
        if (!error || error.code === 'ECONNABORTED' || response.headersSent) resolve();
        else reject(error.code === 'ENOENT' ? Problem.of('file.gone') : error);
      },
    ),
  );
}

/** The width to serve: the smallest that is made and at least as large as asked. */
function widthOf(text: string | undefined): PictureWidth | undefined {
  if (!text || !/^\d{1,5}$/.test(text)) return undefined;
  return PICTURE_WIDTHS.find((width) => width >= Number(text)) ?? 1920;
}

/** Whether a picture of a piece is still without the client's approval, and the one who looks neither makes nor checks the piece. */
async function isToBeMarked(app: App, asset: AssetRow, makerId: string | undefined, channelId: string | undefined): Promise<boolean> {
  if (asset.piece_id === null) return false;
  if (makerId !== undefined && (await makes(app, makerId, asset.piece_id))) return false;
  const [source] = await loadSources(app.manager, [asset.piece_id]);
  if (!source) return false;
  const [found] = await app.read<{ here: boolean; noted: boolean }>(
    `select content -> $2 -> 'media' @> jsonb_build_array(jsonb_build_object('assetId', $3::text)) as here,
       exists (select 1 from team_notes n where n.piece_id = p.id and $3::uuid = any(n.asset_ids) and n.removed_at is null)
         or exists (select 1 from materials m where m.piece_id = p.id and m.asset_id = $3::uuid and m.removed_at is null) as noted from pieces p where id = $1`,
    [asset.piece_id, SHARED_PART, asset.id],
  );
  if (found?.noted && !found.here) return false; // went with a note or is material: nobody is to approve it
  const signOff = signOffOf(source);
  return !(found?.here && signOff.shared === 'signed' && (channelId === undefined || signOff.channels[channelId] === 'signed'));
}

async function makes(app: App, personId: string, pieceId: string): Promise<boolean> {
  const rows = await app.read("select 1 from steps where piece_id = $1 and doer_id = $2 and kind in ('make', 'check') limit 1", [
    pieceId,
    personId,
  ]);
  return rows.length > 0;
}
