import { fail, ok, placeIn, type Content, type Place, type Pointed, type Result } from '@zesting/core';
import type { PlaceBody } from '@zesting/contract';
import { rowsOf, type Tx } from '../../platform/database/transaction.js';

export type PlaceFailure = { code: 'remark.place_unknown' };

/** Looks up the places that were pointed at in a content; null stays the whole. Fails where one of them is not in it. */
export async function lookUpPlaces(
  tx: Tx,
  content: Content,
  bodies: readonly (PlaceBody | null)[],
): Promise<Result<(Place | null)[], PlaceFailure>> {
  const files = await rowsOf<{ id: string; mime: string }>(tx, 'select id, mime from assets where id = any($1)', [
    content.shared.media.map(({ assetId }) => assetId),
  ]);
  const mimes = new Map(files.map(({ id, mime }) => [id, mime]));
  const kindOf = (assetId: string) => {
    const mime = mimes.get(assetId) ?? '';
    return mime.startsWith('image/') ? 'picture' : /^(video|audio)\//.test(mime) ? 'clip' : null;
  };
  const places: (Place | null)[] = [];
  for (const body of bodies) {
    const place = body && placeIn(content, pointedBy(body), kindOf);
    if (body !== null && place === null) return fail({ code: 'remark.place_unknown' });
    places.push(place);
  }
  return ok(places);
}

/** What a body points at: its checks saw that what belongs to its kind is there. */
function pointedBy({ kind, channelId = null, textKey, from = 0, to = 0, words = '', assetId = '', ...rest }: PlaceBody): Pointed {
  if (kind === 'stretch') return { kind, channelId, ...(textKey === undefined ? {} : { textKey }), from, to, words };
  if (kind === 'moment') return { kind, assetId, atMs: rest.atMs ?? 0 };
  return { kind, assetId, x: rest.x ?? 0, y: rest.y ?? 0, width: rest.width ?? 0, height: rest.height ?? 0 };
}
