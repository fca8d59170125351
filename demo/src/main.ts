import 'reflect-metadata';
import { readConfig } from '@zesting/server';
import { loadDemo } from './load.js';
import { loadWhole } from './load-whole.js';
import { PASSWORD, PEOPLE } from './story.js';

const WHAT = { lead: 'agency lead', manager: 'account manager', staff: 'staff creator', freelance: 'freelance creator' };

let failure: string | null = null;
try {
  const config = readConfig(process.env);
  await loadWhole(config, async (app, now) => {
    console.log('Loading the demo …');
    await loadDemo(app, now);
  });
} catch (error) {
  // whoever started us goes on without a demo, and says so
  failure = error instanceof Error ? error.message : String(error);
  console.error(error);
}
const people = Object.values(PEOPLE).map((person) => ({ email: person.email, what: `${person.name}, ${WHAT[person.role]}` }));
process.send?.({ password: PASSWORD, people, failure }, () => process.disconnect());
process.exitCode = failure === null ? 0 : 1;
