import 'reflect-metadata';
import { readConfig } from '@zesting/server';
import { loadDemo } from './load.js';
import { loadWhole, whatIsIn, type Holds } from './load-whole.js';
import { PASSWORD, PEOPLE } from './story.js';

const WHAT = { lead: 'agency lead', manager: 'account manager', staff: 'staff creator', freelance: 'freelance creator' };

// ZESTING_DEMO=off: only tells what the database holds
let failure: string | null = null;
let holds: Holds = 'empty';
try {
  const config = readConfig(process.env);
  if (process.env['ZESTING_DEMO'] !== 'off')
    await loadWhole(config, async (app, now) => {
      console.log('Loading the demo …');
      await loadDemo(app, now);
    });
  holds = await whatIsIn(config.databaseUrl);
} catch (error) {
  // whoever started us goes on without a demo, and says so
  failure = error instanceof Error ? error.message : String(error);
  console.error(error);
}
const people = Object.values(PEOPLE).map((person) => ({ email: person.email, what: `${person.name}, ${WHAT[person.role]}` }));
process.send?.({ password: PASSWORD, people, failure, holds }, () => process.disconnect());
process.exitCode = failure === null ? 0 : 1;
