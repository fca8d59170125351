// npm run dev: Zesting as `npm start` runs it, with the web pages served by Vite and reloaded as they change. Changes to the
// server are compiled as they are saved; restart to run them.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { root } from './prepare.mjs';

const port = Number(process.env.ZESTING_PORT ?? 4310);
const start = (args, env = {}) => spawn(process.execPath, args, { cwd: root, stdio: 'inherit', env: { ...process.env, ...env } });
const children = [
  start(['tools/start.mjs'], { ZESTING_ADDRESS: process.env.ZESTING_ADDRESS ?? `http://127.0.0.1:${port}` }),
  start([join('node_modules', 'typescript', 'bin', 'tsc'), '-b', '--watch', '--preserveWatchOutput']),
  start([join('node_modules', 'vite', 'bin', 'vite.js'), 'apps/web'], { ZESTING_DEV_SERVER: `http://127.0.0.1:${port}` }),
];
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => children.forEach((child) => child.kill('SIGTERM')));
children[0].once('exit', (code) => {
  children.forEach((child) => child.kill('SIGTERM'));
  process.exitCode = code ?? 1;
});
