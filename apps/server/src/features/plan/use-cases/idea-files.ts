import { fail, ok, type Result } from '@zesting/core';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf } from '../../../platform/database/transaction.js';
import { dropAssets, dropBytes } from '../../production/index.js';
import { lockIdea } from './ideas.js';

/** Takes a file off an idea, for good. */
export async function removeIdeaFile(
  app: App,
  viewer: Viewer,
  ideaId: string,
  assetId: string,
): Promise<Result<null, { code: 'file.unknown' | 'idea.used' }>> {
  let hashes: string[] = [];
  const removed = await app.write<null, { code: 'file.unknown' | 'idea.used' }>(async (tx, now) => {
    const idea = await lockIdea(tx, ideaId);
    if (idea.state === 'used') return fail({ code: 'idea.used' });
    const [file] = await rowsOf<{ name: string }>(tx, 'select name from assets where id = $1 and idea_id = $2', [assetId, ideaId]);
    if (!file) return fail({ code: 'file.unknown' });
    hashes = await dropAssets(tx, [assetId]);
    const { clientId } = idea;
    const detail = { file: file.name };
    await recordActivity(tx, { clientId, thing: 'idea', thingId: ideaId, verb: 'idea.file_removed', actor: viewer.name, detail, at: now });
    return ok(null);
  });
  if (removed.ok) await dropBytes(app, hashes);
  return removed;
}
