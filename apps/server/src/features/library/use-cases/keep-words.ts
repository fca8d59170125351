import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { addJob } from '../../../platform/jobs/jobs.js';
import type { App } from '../../../platform/app.js';

/** The job that reads a client's pieces in another language. */
export const REREAD = 'library_reread';

/** So many pieces are read anew at a time. */
const AT_ONCE = 200;

const KEEP = `insert into piece_words (piece_id, client_id, language, made_at, words)
  select p.id, p.client_id, c.language, p.created_at, words_of(c.language, p.title, p.notes, p.content) from pieces p join clients c on c.id = p.client_id`;
const AGAIN = 'on conflict (piece_id) do update set language = excluded.language, words = excluded.words';

/** Keeps the words of a piece that was made or changed, in the transaction of that. */
export const keepWords = (tx: Tx, { id }: { readonly id: string }): Promise<void> => tx.query(`${KEEP} where p.id = $1 ${AGAIN}`, [id]);

/** A client's copy is in another language: its pieces are read anew, by a job. */
export const rereadLater = (tx: Tx, { clientId }: { readonly clientId: string }): Promise<void> =>
  addJob(tx, REREAD, { clientId }, { key: `${REREAD}:${clientId}` });

/** Reads a client's pieces anew in its language: some, and a commit, at a time. */
export async function rereadWords(app: App, clientId: string): Promise<void> {
  for (let isDone = false; !isDone;)
    await app.write(async (tx) => {
      const rows = await rowsOf<{ id: string }>(
        tx,
        `select w.piece_id as id from piece_words w join clients c on c.id = w.client_id where w.client_id = $1 and w.language <> c.language
         order by w.piece_id limit ${AT_ONCE}`,
        [clientId],
      );
      if (rows.length > 0) await tx.query(`${KEEP} where p.id = any($1) ${AGAIN}`, [rows.map(({ id }) => id)]);
      isDone = rows.length === 0;
      return { ok: true, value: null };
    });
}
