import type { FindShape, FoundShape } from '@zesting/contract';
import type { Viewer } from '../../platform/access/access.js';
import type { App } from '../../platform/app.js';

/** So many of each kind are found. */
const EACH = 7;
/** The longest text that is looked for. */
export const QUERY_LIMIT = 100;

/** A text for `like`, in which none of its characters means anything else. */
const pattern = (text: string): string => `%${text.replace(/[\\%_]/g, '\\$&')}%`;

interface Looked {
  readonly words: readonly string[];
  /** the clients looked in: those of the viewer, or the one whose code was typed */
  readonly clientIds: readonly string[];
}

/**
 * Things whose name holds every word, with or without accents, newest first, in the viewer's reach. A client's code among the words
 * looks in that client alone; a number finds the piece or request of that number.
 */
export async function find(app: App, viewer: Viewer, text: string): Promise<FindShape> {
  const typed = text.slice(0, QUERY_LIMIT).trim().split(/\s+/).filter(Boolean);
  if (typed.length === 0) return { items: [] };
  const clients = await app.read<{ id: string; code: string; name: string; holds: boolean }>(
    `select id, code, name, ${every("plain_letters(code || ' ' || name)", typed, 2)} as holds from clients where id = any($1)`,
    [viewer.clientIds, ...typed.map(pattern)],
  );
  const named = typed.length > 1 ? clients.filter((client) => typed.some((word) => word.toUpperCase() === client.code)) : [];
  const looked: Looked = {
    words: named.length > 0 ? typed.filter((word) => !named.some((client) => client.code === word.toUpperCase())) : typed,
    clientIds: named.length > 0 ? named.map((client) => client.id) : viewer.clientIds,
  };
  const manages = viewer.role === 'lead' || viewer.role === 'manager';
  const found: FoundShape[] = clients
    .filter((client) => manages && client.holds)
    .map(({ id, code, name }) => ({ kind: 'client', id, title: name, note: code, path: `/clients/${id}`, clientId: id }));
  found.push(...(await pieces(app, viewer, looked)));
  if (manages) found.push(...(await requests(app, looked)), ...(await people(app, looked.words)), ...(await contacts(app, looked)));
  return { items: found };
}

/** The condition that a text in plain letters holds every word; the values begin at `$first`. */
const every = (column: string, words: readonly string[], first: number): string =>
  words.map((_, index) => `${column} like plain_letters($${index + first})`).join(' and ') || 'true';

/** The number that was typed, where that is all. */
const numberOf = ({ words }: Looked): number | null => (words.length === 1 && /^\d{1,8}$/.test(words[0] ?? '') ? Number(words[0]) : null);

async function pieces(app: App, viewer: Viewer, looked: Looked): Promise<FoundShape[]> {
  return app.read<FoundShape>(
    `select 'piece' as kind, p.id, p.title, 'no. ' || p.number || ' · ' || replace(p.stage, '_', ' ') as note, '/pieces/' || p.id as path,
       p.client_id as "clientId"
     from pieces p where p.client_id = any($1) and $3::uuid is not null and (p.number = $2 or (${every('p.title_plain', looked.words, 4)}))
       ${viewer.role === 'freelance' ? 'and exists (select 1 from steps s where s.piece_id = p.id and s.doer_id = $3)' : ''}
     order by p.created_at desc, p.id limit ${EACH}`,
    [looked.clientIds, numberOf(looked), viewer.personId, ...looked.words.map(pattern)],
  );
}

const requests = (app: App, looked: Looked): Promise<FoundShape[]> =>
  app.read<FoundShape>(
    `select 'request' as kind, r.id, r.title, 'request ' || r.number || ', ' || r.state || ', ' || r.requester_name as note,
       '/requests/' || r.id as path, r.client_id as "clientId"
     from requests r where r.client_id = any($1) and (r.number = $2 or (${every('r.title_plain', looked.words, 3)}))
     order by r.received_at desc, r.id limit ${EACH}`,
    [looked.clientIds, numberOf(looked), ...looked.words.map(pattern)],
  );

const people = (app: App, words: readonly string[]): Promise<FoundShape[]> =>
  app.read<FoundShape>(
    `select 'person' as kind, id, name as title, role || case when active then '' else ', has left' end as note, '/people/' || id as path,
       null as "clientId"
     from people where ${every('plain_letters(name)', words, 1)} order by active desc, name limit ${EACH}`,
    words.map(pattern),
  );

const contacts = (app: App, looked: Looked): Promise<FoundShape[]> =>
  app.read<FoundShape>(
    `select 'contact' as kind, x.id, x.name as title, x.email || ', ' || c.name as note,
       '/clients/' || x.client_id || '?part=contacts' as path, x.client_id as "clientId"
     from contacts x join clients c on c.id = x.client_id
     where x.client_id = any($1) and x.archived_at is null and (${every("plain_letters(x.name || ' ' || x.email)", looked.words, 2)})
     order by x.name limit ${EACH}`,
    [looked.clientIds, ...looked.words.map(pattern)],
  );
