import 'reflect-metadata';
import pg from 'pg';
import { App, createServer, migrate, migrateJobs, readConfig } from '@zesting/server';
import { loadDemo } from './load.js';
import { PASSWORD, PEOPLE } from './story.js';

const WHAT = { lead: 'agency lead', manager: 'account manager', staff: 'staff creator', freelance: 'freelance creator' };

const config = readConfig(process.env);

/** Whether a story was loaded before: asked without building the application, so that a second start is quick. */
async function isLoaded(): Promise<boolean> {
  const client = new pg.Client(config.databaseUrl);
  await client.connect();
  try {
    return (
      (await client.query("select to_regclass('agencies') as there")).rows[0].there !== null &&
      (await client.query('select 1 from agencies')).rows.length > 0
    );
  } finally {
    await client.end();
  }
}

if (!(await isLoaded())) {
  console.log('Loading the demo …');
  await migrate(config.databaseUrl);
  await migrateJobs(config.databaseUrl);
  // not started: no job runs meanwhile, what the story puts into the outbox goes out when the server starts
  const server = await createServer({ ...config, webFolder: null });
  try {
    const app = server.get(App);
    await loadDemo(app, app.clock.now());
  } finally {
    await server.close();
  }
}
const people = Object.values(PEOPLE).map((person) => ({ email: person.email, what: `${person.name}, ${WHAT[person.role]}` }));
process.send?.({ password: PASSWORD, people }, () => process.disconnect());
