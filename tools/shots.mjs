// npm run shots: makes docs/screenshots anew from the demo.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { root } from './prepare.mjs';

const result = spawnSync(process.execPath, [join(root, 'tools/test.mjs'), 'browser', 'screenshots'], {
  cwd: root,
  stdio: 'inherit',
  env: { ...process.env, ZESTING_SHOTS: '1' },
});
process.exit(result.status ?? 1);
