// npm test: lint, types, unit, database and browser tests on a throwaway cluster; closes with one line "N passed, N failed".
// `node tools/test.mjs unit|database|browser|lint|types [arguments for the runner]` runs one part.
import { spawn } from 'node:child_process';
import { chmodSync, existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, relative } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build } from './build.mjs';
import { clusterFolder, findPrograms, freePort, makeCluster, startCluster, stopCluster } from './database.mjs';
import { findBrowser, findProxy, needModules, needPackages, root, tell } from './prepare.mjs';

const [part, ...rest] = process.argv.slice(2);
const wants = (name) => part === undefined || part === name;
const work = mkdtempSync(join(tmpdir(), 'zesting-test-'));
chmodSync(work, 0o755); // the user that runs PostgreSQL must get in
const TEMPLATE = 'migrated';
let passed = 0;
let failed = 0;

/** Runs a package's program in a process group of its own and resolves with its exit code. */
function run(script, args, env = {}) {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, [join(root, 'node_modules', script), ...args], {
      cwd: root,
      env: { ...process.env, ...env },
      stdio: ['ignore', 'inherit', 'inherit'],
    });
    child.once('exit', (code) => resolve(code ?? 1));
  });
}

/** A check that has no count of its own is one test. */
async function check(name, script, args) {
  const code = await run(script, args);
  console.log(`${code === 0 ? 'ok' : 'FAILED'}: ${name}`);
  if (code === 0) passed += 1;
  else failed += 1;
}

/** An empty, migrated database, which each file of database tests begins with a copy of. */
async function migrateTemplate(port) {
  const { default: pg } = await import('pg'); // there only once the packages are
  const client = new pg.Client(`postgres://postgres@127.0.0.1:${port}/postgres`);
  await client.connect();
  await client.query(`create database ${TEMPLATE}`);
  await client.end();
  await import('reflect-metadata');
  const platform = (file) => import(pathToFileURL(join(root, 'apps/server/dist/platform', file)).href);
  const [{ migrate }, { migrateJobs }] = await Promise.all([platform('database/data-source.js'), platform('jobs/jobs.js')]);
  const url = `postgres://postgres@127.0.0.1:${port}/${TEMPLATE}`;
  await migrate(url);
  await migrateJobs(url);
}

const GROUPS = join(root, 'apps/server/.groups');
const GROUP_COUNT = 4;

/**
 * Puts the files of database tests into a few that only import them: what each would load anew (the server with all of its packages, two
 * seconds) is loaded once per group. Shared out by size, so that the groups take about as long as each other.
 */
function group() {
  const files = ['apps', 'demo'].flatMap((folder) =>
    readdirSync(join(root, folder), { recursive: true })
      .filter((path) => /\.db\.test\.ts$/.test(path) && !/(^|\/)(node_modules|dist|\.groups)\//.test(path))
      .map((path) => join(root, folder, path)),
  );
  const groups = Array.from({ length: GROUP_COUNT }, () => ({ bytes: 0, files: [] }));
  const sized = files.map((path) => ({ path, bytes: statSync(path).size })).sort((a, b) => b.bytes - a.bytes);
  for (const { path, bytes } of sized) {
    const smallest = groups.reduce((least, one) => (one.bytes < least.bytes ? one : least));
    smallest.files.push(path);
    smallest.bytes += bytes;
  }
  rmSync(GROUPS, { recursive: true, force: true }); // of a run that was killed
  mkdirSync(GROUPS, { recursive: true });
  for (const [index, { files: inside }] of groups.entries())
    writeFileSync(
      join(GROUPS, `${index + 1}.db.test.ts`),
      inside.map((path) => `import '${relative(GROUPS, path).slice(0, -3)}';\n`).join(''),
    );
}

/** Unit tests, database tests, or both in one run that keeps both cores at work to its end. */
async function jest(projects, env) {
  const report = join(work, 'jest.json');
  const args = ['--selectProjects', ...projects, '--maxWorkers=2', '--json', `--outputFile=${report}`, ...rest];
  const isGrouped = projects.includes('database') && rest.length === 0;
  if (isGrouped) group();
  const code = await run('jest/bin/jest.js', args, isGrouped ? { ...env, ZESTING_GROUPS: '1' } : env);
  count(code, report, (json) => [json.numPassedTests, json.numFailedTests + json.numRuntimeErrorTestSuites]);
}

const lint = () => check('lint', 'eslint/bin/eslint.js', ['.', '--max-warnings=0']);

/** What else is looked at in the sources; beside the linter, which takes as long as all of it and the types. */
async function format() {
  await check('format', 'prettier/bin/prettier.cjs', ['--check', '--log-level', 'warn', '.']);
  const folders = ['packages', 'apps', 'demo', 'e2e'];
  await check('imports', 'dependency-cruiser/bin/dependency-cruise.mjs', ['--config', '.dependency-cruiser.cjs', ...folders]);
}

async function types() {
  await check('types of the web', 'ts7/bin/tsc', ['-p', 'apps/web']);
  await check('types of the tests', 'ts7/bin/tsc', ['-p', 'tsconfig.tests.json']);
}

function count(code, report, read) {
  const [good, bad] = existsSync(report) ? read(JSON.parse(readFileSync(report, 'utf8'))) : [0, 0];
  passed += good;
  failed += code !== 0 && bad === 0 ? 1 : bad;
}

/** The browser tests that failed, and held when their story was told once more: no fault of what is tested as far as one sees, but somebody should look. */
const secondTimes = ({ suites = [], specs = [] }) => [
  ...specs.filter(({ tests }) => tests.some(({ status }) => status === 'flaky')).map(({ file, line, title }) => `${file}:${line} ${title}`),
  ...suites.flatMap(secondTimes),
];

await tell(async () => {
  needPackages({ browser: wants('browser') });
  needModules();
  const bin = findPrograms();
  const cluster = clusterFolder(work, 'test');
  let port = 0;
  try {
    if (part !== 'lint') build(); // workers run as they are compiled, also in unit tests
    if (wants('database') || wants('browser')) {
      makeCluster(bin, cluster);
      port = await freePort();
      startCluster(bin, cluster, port, { fsync: 'off', synchronous_commit: 'off', full_page_writes: 'off', max_connections: 200 });
    }
    const needsStory = wants('browser') || (wants('database') && rest.every((word) => word.includes('load')));
    // the demo is loaded once, for whatever looks at it, while the sources are looked at and the first tests run
    const { loadStory, storyIn } = await import('./story.mjs'); // which needs the packages
    const story = needsStory ? storyIn(join(work, 'story')) : {};
    const loaded = needsStory ? loadStory(port, join(work, 'story')) : Promise.resolve();
    loaded.catch(() => undefined); // told where it is waited for
    await Promise.all([
      wants('database') && migrateTemplate(port),
      wants('lint') && lint(),
      wants('types') && types().then(() => part === undefined && format()),
      part === 'lint' && format(),
    ]);
    const projects = [...(wants('unit') ? ['unit', 'pages'] : []), ...(wants('database') ? ['database'] : [])];
    // the demo goes on at a present drawn by chance: the same again with ZESTING_NOW
    const chance = new Date(Date.UTC(2027, 0, 1) + Math.floor(Math.random() * 2 * 365 * 24 * 60) * 60_000).toISOString();
    if (projects.includes('database')) console.log(`A present drawn by chance: ZESTING_NOW=${process.env.ZESTING_NOW ?? chance}`);
    if (projects.length > 0)
      await jest(projects, {
        ZESTING_TEST_PG: String(port),
        ZESTING_TEST_TEMPLATE: TEMPLATE,
        ...story,
        ZESTING_CHANCE: process.env.ZESTING_NOW ?? chance,
      });
    await loaded;
    if (wants('browser')) {
      const report = join(work, 'browser.json');
      const env = {
        ZESTING_TEST_PG: String(port),
        ...story,
        PLAYWRIGHT_JSON_OUTPUT_NAME: report,
        ZESTING_BROWSER: findBrowser(),
        ZESTING_PROXY: findProxy(),
      };
      const code = await run('@playwright/test/cli.js', ['test', '--config', 'e2e/playwright.config.ts', ...rest], env);
      count(code, report, ({ stats }) => [stats.expected + stats.flaky, stats.unexpected]);
      if (existsSync(report))
        for (const name of secondTimes(JSON.parse(readFileSync(report, 'utf8')))) console.log(`held only the second time: ${name}`);
    }
  } finally {
    if (port) stopCluster(bin, cluster);
    for (const folder of [work, GROUPS]) rmSync(folder, { recursive: true, force: true });
  }
  console.log(`${passed} passed, ${failed} failed`);
  process.exit(failed > 0 ? 1 : 0);
});
