import {
  EMPTY_CHANNEL_PART,
  fail,
  namedTexts,
  ok,
  type ChannelPart,
  type Content,
  type ContentText,
  type FormatText,
  type InstantText,
  type Medium,
  type OtherWordings,
  type Result,
} from '@zesting/core';
import type { ChannelPartBody, ContentBody, SharedPartBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { replan } from '../../planning/index.js';
import type { Piece } from '../entities/piece.entity.js';
import { askForCuts, lockPiece, pieceChanged, setContent } from '../piece-store.js';

/** What keeps a body from being a content of its piece. */
interface Unfit {
  readonly code: 'text.unknown' | 'file.unknown' | 'cover.unfit' | 'channel.unknown';
}

type Failure = { code: 'http.changed_meanwhile' } | Unfit;

/** Writes the working copy. An edit made against an older state is refused: the answer to it carries both states. */
export function editContent(
  app: App,
  viewer: Viewer,
  pieceId: string,
  body: ContentBody,
  version: number,
): Promise<Result<number, Failure>> {
  return app.write<number, Failure>(async (tx, now) => {
    const piece = await lockPiece(tx, pieceId);
    if (piece.contentVersion !== version) return fail({ code: 'http.changed_meanwhile' });
    const content = await contentOf(tx, piece, body);
    if (!content.ok) return content;
    await saveContent(tx, viewer, piece, content.value, now);
    return ok(piece.contentVersion);
  });
}

/** Puts a content into a piece that is locked, with the record of it; what follows from it follows. */
export async function saveContent(tx: Tx, viewer: Pick<Viewer, 'name'>, piece: Piece, content: Content, now: InstantText): Promise<void> {
  const before = piece.digests;
  const thoughtBefore = piece.content.shared.others;
  setContent(piece, content);
  await tx.save(piece);
  await askForCuts(tx, piece.content);
  const changed = [
    ...(before.shared === piece.digests.shared ? [] : ['shared']),
    ...Object.keys(piece.digests.channels).filter((id) => before.channels[id] !== piece.digests.channels[id]),
  ];
  const isThoughtOf = JSON.stringify(thoughtBefore) !== JSON.stringify(piece.content.shared.others);
  if (changed.length > 0 || isThoughtOf)
    await recordActivity(tx, {
      clientId: piece.clientId,
      thing: 'piece',
      thingId: piece.id,
      verb: changed.length > 0 ? 'piece.content_edited' : 'piece.wordings_thought_of',
      actor: viewer.name,
      detail: changed.length > 0 ? { parts: changed } : {},
      at: now,
    });
  await replan(tx, [piece.id], now);
  await pieceChanged.tell(tx, { id: piece.id, by: viewer }, now);
}

/** A channel's part as a body describes it. What says which media are shown and how they are cut may be left away: then it stays. */
function partOf({ copy, tags, firstComment, link, media, crops }: ChannelPartBody, before: ChannelPart | undefined): ChannelPart {
  const shown = media === undefined ? before?.media : (media ?? undefined);
  const cut =
    crops === undefined ? before?.crops : Object.fromEntries(crops.map(({ hash, ratio, x, y, size }) => [hash, { ratio, x, y, size }]));
  return { copy, tags, firstComment, link, ...(shown ? { media: shown } : {}), ...(cut ? { crops: cut } : {}) };
}

/** Wordings that were thought of, as a body tells them; those of a text of which it says nothing stay. */
const othersOf = (given: SharedPartBody['texts'] = [], before: OtherWordings = {}): OtherWordings => ({
  ...before,
  ...Object.fromEntries(given.flatMap(({ key, others }) => (others ? [[key, others] as const] : []))),
});

/** The texts besides the copy, under the names that the piece's format gives them; undefined where one is of neither. */
async function textsOf(tx: Tx, piece: Piece, given: SharedPartBody['texts']): Promise<readonly ContentText[] | undefined> {
  const before = piece.content.shared.texts ?? [];
  if (given === undefined) return before;
  const [format] = await rowsOf<{ texts: FormatText[] }>(tx, 'select texts from formats where id = $1', [piece.formatId]);
  return namedTexts(given, format?.texts ?? [], before);
}

/** A picture stands for what runs in time. */
const canCover = (picture = '', clip = ''): boolean => picture.startsWith('image/') && /^(video|audio)\//.test(clip);

/** The content that a body describes: known files of this piece, its request or a piece that it was begun from, and just the channels that the piece has. */
async function contentOf(tx: Tx, piece: Piece, body: ContentBody): Promise<Result<Content, Unfit>> {
  const files = await rowsOf<{ id: string; hash: string; name: string; mime: string }>(
    tx,
    `with pieces_at_hand as (select $3::uuid as id union select of_piece_id from piece_references where piece_id = $3)
     select id, hash, name, mime from assets where id = any($1) and client_id = $2
       and (piece_id in (select id from pieces_at_hand) or request_id in (select request_id from piece_requests where piece_id in (select id from pieces_at_hand)))`,
    [body.shared.media.map((medium) => medium.assetId), piece.clientId, piece.id],
  );
  const byId = new Map(files.map((file) => [file.id, file]));
  const before = new Map(piece.content.shared.media.map(({ hash, cover }) => [hash, cover]));
  const media = body.shared.media.flatMap(({ assetId, alt, cover: given }): Medium[] => {
    const file = byId.get(assetId);
    if (!file) return [];
    const cover = given === undefined ? before.get(file.hash) : (given ?? undefined);
    return [{ assetId, alt, hash: file.hash, name: file.name, ...(cover === undefined ? {} : { cover }) }];
  });
  if (media.length !== body.shared.media.length) return fail({ code: 'file.unknown' });
  const mimes = new Map(files.map(({ hash, mime }) => [hash, mime]));
  if (body.shared.media.some(({ assetId, cover }) => cover && !canCover(mimes.get(cover), byId.get(assetId)?.mime)))
    return fail({ code: 'cover.unfit' });
  if (body.channels.some((part) => !(part.channelId in piece.content.channels))) return fail({ code: 'channel.unknown' });
  const texts = await textsOf(tx, piece, body.shared.texts);
  if (!texts) return fail({ code: 'text.unknown' });
  const given = new Map(body.channels.map((part) => [part.channelId, part]));
  return ok({
    shared: {
      copy: body.shared.copy,
      disclosure: body.shared.disclosure,
      isLaidOut: body.shared.isLaidOut ?? piece.content.shared.isLaidOut ?? false,
      others: othersOf(body.shared.texts, piece.content.shared.others),
      media,
      texts,
    },
    channels: Object.fromEntries(
      Object.keys(piece.content.channels).map((id) => {
        const part = given.get(id);
        return [id, part ? partOf(part, piece.content.channels[id]) : (piece.content.channels[id] ?? EMPTY_CHANNEL_PART)];
      }),
    ),
  });
}
