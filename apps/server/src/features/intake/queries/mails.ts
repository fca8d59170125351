import type { MailPage, MailRow, RequestAddressShape } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { mailAddress } from '../../../platform/mail/inbox.js';

const PAGE = 50;
/** So much of a mail’s beginning a list shows. */
const SHOWN = 2_000;

interface Asked {
  readonly state: MailRow['state'];
  readonly clientId: string | undefined;
  readonly cursor: string | undefined;
}

/** Mails that wait, that were left, or that machines wrote; newest first. */
export async function mailPage(app: App, viewer: Viewer, { state, clientId, cursor }: Asked): Promise<MailPage> {
  const clientIds = clientId === undefined ? viewer.clientIds : viewer.clientIds.filter((id) => id === clientId);
  const rows = await app.read<MailRow>(
    `select m.id, m.client_id as "clientId", m.from_name as "fromName", m.from_email as "fromEmail", m.subject, left(m.text, ${SHOWN}) as text,
       m.files, m.received_at as "receivedAt", m.state, m.reason, r.title as answers
     from incoming_mails m left join requests r on r.id = m.request_id
     where m.client_id = any($1) and m.state = $2
       and ($3::uuid is null or (m.received_at, m.id) < (select o.received_at, o.id from incoming_mails o where o.id = $3))
     order by m.received_at desc, m.id desc limit ${PAGE + 1}`,
    [clientIds, state, cursor ?? null],
  );
  return { items: rows.slice(0, PAGE), nextCursor: rows.length > PAGE ? (rows[PAGE - 1]?.id ?? null) : null };
}

/** The request addresses of those clients whom the viewer is with; none where no mail is taken in. */
export async function requestAddresses(app: App, viewer: Viewer): Promise<RequestAddressShape[]> {
  const rows = await app.read<{ id: string; code: string }>(
    'select id, code from clients where id = any($1) and archived_at is null order by name, id',
    [viewer.clientIds],
  );
  return rows.flatMap(({ id, code }) => {
    const address = mailAddress(app.config, code.toLowerCase());
    return address === null ? [] : [{ clientId: id, address }];
  });
}
