import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { FEATURES } from './features';
import { routes } from './routes';

const server = join(__dirname, '../../server/src');

/** The verbs that the server writes into the record: dotted words on the lines that write it. */
function recorded(): string[] {
  const files = readdirSync(server, { recursive: true, encoding: 'utf8' }).filter(
    (file) => /\.ts$/.test(file) && !/\.test\.ts$/.test(file),
  );
  const lines = files.flatMap((file) => readFileSync(join(server, file), 'utf8').split('\n'));
  const verbs = lines
    .filter((line) => /\bverb\b|\brecord[A-Z]\w*\(|\bnote\(/.test(line))
    .flatMap((line) => [...line.matchAll(/'([a-z_]+\.[a-z_]+)'/g)].map(([, verb = '']) => verb));
  return [...new Set(verbs)];
}

describe('the features of the interface', () => {
  const verbs = FEATURES.flatMap((feature) => Object.keys(feature.verbs ?? {}));

  it('are those that have a folder, and no two share an address, a place in the menu, or a verb', () => {
    expect(FEATURES.map((feature) => feature.name).sort()).toEqual(readdirSync(join(__dirname, 'features')).sort());
    const addresses = FEATURES.flatMap((feature) => feature.routes.map((route) => route.path ?? '/'));
    expect(new Set(addresses).size).toBe(addresses.length);
    const places = FEATURES.flatMap((feature) => feature.setup?.order ?? []);
    expect(new Set(places).size).toBe(places.length);
    expect(new Set(verbs).size).toBe(verbs.length);
    expect(routes.at(-1)?.children).toHaveLength(addresses.length + 1); // and the page of what is not found
  });

  it('have words for what the record says was done', () => {
    const said = recorded();
    expect(said.length).toBeGreaterThan(50);
    expect(said.filter((verb) => !verbs.includes(verb))).toEqual([]);
  });
});
