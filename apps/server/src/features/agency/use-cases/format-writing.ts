import { fail, ok, type Result } from '@zesting/core';
import type { FormatWritingBody, FormatWritingShape } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { Format } from '../entities/format.entity.js';
import { agencyOf } from '../queries/settings.js';

type Failure = { code: 'format.unknown' | 'http.changed_meanwhile' };

/** The formats in their order, with what their pieces are written by. */
export const formatWritings = (app: App): Promise<FormatWritingShape[]> =>
  app.read<FormatWritingShape>(
    'select id as "formatId", name, texts, outline, is_laid_out as "isLaidOut", writing_version as version from formats where archived_at is null order by position, name',
  );

export const formatWriting = async (app: App, id: string): Promise<FormatWritingShape | undefined> =>
  (await formatWritings(app)).find(({ formatId }) => formatId === id);

/** Says what pieces of a format are written by. What is written already stays where it is, also under a text that goes. */
export function setFormatWriting(
  app: App,
  viewer: Viewer,
  formatId: string,
  body: FormatWritingBody,
  version: number,
): Promise<Result<null, Failure>> {
  return app.write<null, Failure>(async (tx, now) => {
    const format = await tx.findOne(Format, { where: { id: formatId }, lock: { mode: 'pessimistic_write' } });
    if (!format) return fail({ code: 'format.unknown' });
    if (format.writingVersion !== version) return fail({ code: 'http.changed_meanwhile' });
    const texts = body.texts.map(({ key, name, isLong, isSlides = false, prompt, limit = null, isNeeded }) => ({
      key,
      name: name.trim(),
      isLong: isLong || isSlides,
      ...(isSlides ? { isSlides } : {}),
      prompt: prompt.trim(),
      limit,
      isNeeded,
    }));
    const outline = body.outline.map(({ heading, prompt, kinds = [] }) => ({
      heading: heading.trim(),
      prompt: prompt.trim(),
      ...(kinds.length > 0 ? { kinds } : {}),
    }));
    await tx.update(
      Format,
      { id: formatId },
      { texts, outline, isLaidOut: body.isLaidOut ?? format.isLaidOut, writingVersion: format.writingVersion + 1 },
    );
    const agency = await agencyOf(tx, false);
    const names = (of: readonly { readonly name: string }[]) => of.map(({ name }) => name);
    await recordActivity(tx, {
      clientId: null,
      thing: 'agency',
      thingId: agency.id,
      verb: 'agency.writing_set',
      actor: viewer.name,
      detail: { format: format.name, texts: { from: names(format.texts), to: names(texts) } },
      at: now,
    });
    return ok(null);
  });
}
