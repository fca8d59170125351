import { fail, ok, type Result } from '@zesting/core';
import type { SavedViewBody, SavedViewShape, ViewPage } from '@zesting/contract';
import type { Viewer } from '../../platform/access/access.js';
import type { App } from '../../platform/app.js';
import { insertRow, rowsOf } from '../../platform/database/transaction.js';
import { SavedView } from './entities/saved-view.entity.js';

export type ViewFailure = { code: 'view.name_taken' | 'view.too_many' | 'access.not_found' };

const MOST_VIEWS = 50;

/** The ways of looking at a page that the viewer kept, and those that others share, by their names. */
export const viewsOf = (app: App, viewer: Viewer, page: ViewPage): Promise<SavedViewShape[]> =>
  app.read<SavedViewShape>(
    `select v.id, v.page, v.name, v.query, v.is_shared as "isShared", p.name as by, v.person_id = $1 as "isOwn"
     from saved_views v join people p on p.id = v.person_id and (p.active or v.person_id = $1)
     where v.page = $2 and (v.person_id = $1 or v.is_shared) order by v.person_id <> $1, v.name, v.id`,
    [viewer.personId, page],
  );

/** Keeps a way of looking at a page. */
export function keepView(app: App, viewer: Viewer, { page, name, query, isShared }: SavedViewBody): Promise<Result<string, ViewFailure>> {
  return app.write<string, ViewFailure>(async (tx) => {
    const { personId } = viewer;
    await rowsOf(tx, 'select 1 from people where id = $1 for no key update', [personId]);
    const own = await tx.findBy(SavedView, { personId, page });
    if (own.some((view) => view.name.toLowerCase() === name.trim().toLowerCase())) return fail({ code: 'view.name_taken' });
    if (own.length >= MOST_VIEWS) return fail({ code: 'view.too_many' });
    return ok(await insertRow(tx, SavedView, { personId, page, name: name.trim(), query, isShared }));
  });
}

/** Lets go of a view of one's own. */
export function dropView(app: App, viewer: Viewer, viewId: string): Promise<Result<null, ViewFailure>> {
  return app.write<null, ViewFailure>(async (tx) => {
    const { affected } = await tx.delete(SavedView, { id: viewId, personId: viewer.personId });
    return affected === 0 ? fail({ code: 'access.not_found' }) : ok(null);
  });
}
