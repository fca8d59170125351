import 'reflect-metadata';
import { App, createServer, migrate, migrateJobs, readConfig } from '@zesting/server';
import { loadDemo } from './load.js';
import { PASSWORD, PEOPLE } from './story.js';

const WHAT = { lead: 'agency lead', manager: 'account manager', staff: 'staff creator', freelance: 'freelance creator' };

const config = readConfig(process.env);
await migrate(config.databaseUrl);
await migrateJobs(config.databaseUrl);
const server = await createServer({ ...config, webFolder: null });
try {
  const app = server.get(App);
  const [agency] = await app.read('select 1 from agencies');
  if (!agency) {
    console.log('Loading the demo …');
    await server.init();
    await loadDemo(app, app.clock.now());
  }
} finally {
  await server.close();
}
const people = Object.values(PEOPLE).map((person) => ({ email: person.email, what: `${person.name}, ${WHAT[person.role]}` }));
process.send?.({ password: PASSWORD, people }, () => process.disconnect());
