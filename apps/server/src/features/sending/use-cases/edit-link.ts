import { fail, ok, type Result } from '@zesting/core';
import type { ChannelLinkBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { changesBetween, noteOfClient } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf } from '../../../platform/database/transaction.js';
import { seal } from '../../../platform/sealing.js';
import { replanWhere } from '../../planning/index.js';
import { ChannelLink } from '../entities/channel-link.entity.js';

export type EditLinkFailure = {
  code: 'http.changed_meanwhile' | 'channel_link.no_simulation' | 'channel_link.address_refused' | 'sending.under_way';
};

const LOOPBACK = /^(127(\.\d{1,3}){3}|localhost|\[::1\])$/;

/** Whether a channel may be called there: in the clear only on this machine. */
export function isChannelAddress(address: string): boolean {
  const url = URL.canParse(address) ? new URL(address) : undefined;
  if (!url || url.username !== '' || url.password !== '' || url.search !== '' || url.hash !== '') return false;
  return url.protocol === 'https:' || (url.protocol === 'http:' && LOOPBACK.test(url.hostname));
}

/** Says how a channel is reached by itself, or changes that. A token that is left away stays as it was, unless the address is another. @param version 0 where there was none */
export function putLink(
  app: App,
  viewer: Viewer,
  channelId: string,
  body: ChannelLinkBody,
  version: number,
): Promise<Result<null, EditLinkFailure>> {
  return app.write<null, EditLinkFailure>(async (tx, now) => {
    const [channel] = await rowsOf<{ client_id: string; name: string }>(
      tx,
      'select client_id, name from channels where id = $1 for no key update',
      [channelId],
    );
    if (!channel) throw new Error('the channel went away');
    const link = await tx.findOneBy(ChannelLink, { channelId });
    if ((link?.version ?? 0) !== version) return fail({ code: 'http.changed_meanwhile' });
    if (body.address === null && app.config.simulatedChannels === null) return fail({ code: 'channel_link.no_simulation' });
    if (body.address !== null && !isChannelAddress(body.address)) return fail({ code: 'channel_link.address_refused' });
    const { token, ...rest } = body;
    const kept = link && link.address === body.address ? link.token : ''; // told to nobody but the address that it was typed for
    const sealed = token === undefined || token === null ? kept : token === '' ? '' : seal(app.config.serverKey, token);
    // what was told of an end of access holds for that end alone
    const put = { ...rest, token: sealed, version: version + 1 };
    const saved = await tx.save(
      tx.create(ChannelLink, { channelId, clientId: channel.client_id, madeAt: now, toldEndsOn: null, ...link, ...put }),
    );
    const shown = (of: ChannelLink | null) => ({
      address: of?.address,
      accessEndsOn: of?.accessEndsOn,
      audience: of?.audience,
      dailyLimit: of?.dailyLimit,
      minuteLimit: of?.minuteLimit ?? null,
      lateMinutes: of?.lateMinutes,
      ...(token === undefined || token === null ? {} : { token: of === saved ? 'another' : null }),
    });
    const detail = { channel: channel.name, ...changesBetween(shown(link), shown(saved)) };
    await noteOfClient(tx, viewer, channel.client_id, link ? 'channel.link_edited' : 'channel.linked', detail, now);
    await replanWhere(tx, { clientId: channel.client_id }, now);
    return ok(null);
  });
}

/** From now on somebody posts there. What is on its way already must have arrived. */
export function removeLink(app: App, viewer: Viewer, channelId: string): Promise<Result<null, EditLinkFailure>> {
  return app.write<null, EditLinkFailure>(async (tx, now) => {
    const [channel] = await rowsOf<{ client_id: string; name: string }>(
      tx,
      'select client_id, name from channels where id = $1 for no key update',
      [channelId],
    );
    const link = await tx.findOne(ChannelLink, { where: { channelId }, lock: { mode: 'pessimistic_write' } });
    if (!link || !channel) return ok(null);
    const open = await rowsOf(tx, 'select 1 from sendings where channel_id = $1 and settled_at is null limit 1', [channelId]);
    if (open.length > 0) return fail({ code: 'sending.under_way' });
    await tx.delete(ChannelLink, { channelId });
    await noteOfClient(tx, viewer, channel.client_id, 'channel.unlinked', { channel: channel.name }, now);
    await replanWhere(tx, { clientId: channel.client_id }, now);
    return ok(null);
  });
}
