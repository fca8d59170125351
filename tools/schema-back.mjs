// npm run schema-back -- <count>: takes the newest changes of the database's layout back, for who returns to an earlier Zesting. Stop Zesting first.
import { pathToFileURL } from 'node:url';
import { join } from 'node:path';
import { ask, places, withDatabase } from './backup.mjs';
import { Stop } from './database.mjs';
import { root, tell } from './prepare.mjs';
import { build } from './build.mjs';

await tell(async () => {
  const count = Number(process.argv[2]);
  if (!Number.isInteger(count) || count < 1) throw new Stop('say how many: npm run schema-back -- 1');
  build();
  await import('reflect-metadata');
  const { migrateBack } = await import(pathToFileURL(join(root, 'apps/server/dist/platform/database/data-source.js')).href);
  await withDatabase(places(), async (url) => {
    const names = async () => (await ask(url, 'select name from migrations order by timestamp')).map(({ name }) => name);
    const before = await names();
    await migrateBack(url, count).catch((error) => {
      throw new Stop(`nothing further was taken back: ${error.message}`);
    });
    const left = await names();
    for (const name of before.filter((one) => !left.includes(one)).reverse()) console.log(`taken back: ${name}`);
    console.log(
      `The layout is that of ${left.at(-1) ?? 'an empty database'}. Start the Zesting that ends with it: a newer one brings all back at once.`,
    );
  });
});
