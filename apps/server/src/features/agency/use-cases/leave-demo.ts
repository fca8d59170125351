import { rm } from 'node:fs/promises';
import type { DemoShape } from '@zesting/contract';
import { fail, ok, type Result } from '@zesting/core';
import type { App } from '../../../platform/app.js';
import { rowsOf } from '../../../platform/database/transaction.js';
import { agencyOf } from '../queries/settings.js';
import { DemoLeft } from '../entities/demo-left.entity.js';

/** What is the installation's, not the agency's. */
const KEPT = ['migrations', 'demo_left', 'job_workers'];

type Failure = { code: 'agency.not_demo' | 'agency.name_differs' };

/** What leaving the demo removes. */
export async function demoOf(app: App): Promise<DemoShape> {
  const [row] = await app.read<DemoShape>(
    `select (select count(*)::int from clients) as clients, (select count(*)::int from people) as people,
       (select count(*)::int from pieces) as pieces, (select count(*)::int from requests) as requests`,
  );
  return row ?? { clients: 0, people: 0, pieces: 0, requests: 0 };
}

/**
 * Leaves the demo for good: its agency with everything in it goes, sessions, files and waiting jobs too, and no start loads it again. What
 * follows is an empty Zesting that waits to be set up.
 * @param name the agency's name, typed
 */
export async function leaveDemo(app: App, name: string): Promise<Result<null, Failure>> {
  const hashes: string[] = [];
  const left = await app.write<null, Failure>(async (tx, now) => {
    const agency = await agencyOf(tx, true);
    if (!agency.isDemo) return fail({ code: 'agency.not_demo' });
    if (agency.name !== name.trim()) return fail({ code: 'agency.name_differs' });
    const tables = await rowsOf<{ name: string }>(
      tx,
      "select quote_ident(tablename) as name from pg_tables where schemaname = 'public' and tablename <> all($1) order by 1",
      [KEPT],
    );
    const files = await rowsOf<{ hash: string }>(
      tx,
      'select hash from assets union select hash from asset_sizes union select made_hash from picture_cuts union select mark_hash from agencies where mark_hash is not null',
    );
    hashes.push(...files.map((file) => file.hash));
    await tx.query(`truncate ${tables.map((table) => table.name).join(', ')} restart identity`);
    await tx.query('alter sequence piece_numbers restart');
    await tx.query('alter sequence request_numbers restart');
    // mail and work of the demo that waits; what runs at this moment finds nothing and ends
    await tx.query('select graphile_worker.complete_jobs(array(select id from graphile_worker._private_jobs where locked_at is null))');
    await tx.insert(DemoLeft, { at: now });
    return ok(null);
  });
  if (left.ok) for (const hash of hashes) await rm(app.files.pathOf(hash), { force: true });
  return left;
}
