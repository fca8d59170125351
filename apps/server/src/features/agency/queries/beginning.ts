import type { BeginningShape, BeginningStep } from '@zesting/contract';
import type { App } from '../../../platform/app.js';

/** What comes next for an agency that begins, in the order in which one thing needs the other. */
export async function beginningOf(app: App): Promise<BeginningShape> {
  const [row] = await app.read<Record<Exclude<BeginningStep['key'], 'mail'>, number> & { mail: boolean; hidden: boolean }>(
    `select a.hides_beginning as hidden, a.mail_proved_at is not null as mail,
       (select count(*)::int from routes where archived_at is null) as routes,
       (select count(*)::int from clients where archived_at is null) as clients,
       (select count(*)::int from contacts x join clients c on c.id = x.client_id where x.archived_at is null and c.archived_at is null) as contacts,
       (select count(distinct l.client_id)::int from form_links l join clients c on c.id = l.client_id where l.link_open and c.archived_at is null) as forms,
       (select count(*)::int from people where active) - 1 as people,
       (select count(*)::int from (select 1 from pieces limit 100) p) as pieces
     from agencies a`,
  );
  if (!row) return { steps: [], isHidden: true };
  const counted = (key: Exclude<BeginningStep['key'], 'mail'>): BeginningStep => ({ key, isDone: row[key] > 0, count: row[key] });
  return {
    isHidden: row.hidden,
    steps: [
      counted('routes'),
      counted('people'),
      counted('clients'),
      counted('contacts'),
      counted('forms'),
      { key: 'mail', isDone: row.mail, count: row.mail ? 1 : 0 },
      counted('pieces'),
    ],
  };
}
