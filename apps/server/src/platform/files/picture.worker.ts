import { makeSizes, measure } from './picture-work.js';
import type { PictureTask } from './picture-process.js';

// A process of its own: a picture that takes too much or breaks the library ends this process and nothing else.
process.on('message', (task: PictureTask) => {
  const work =
    task.kind === 'measure'
      ? measure(typeof task.source === 'string' ? task.source : Buffer.from(task.source))
      : makeSizes(task.source, task.widths);
  work.then(
    (answer) => process.send?.({ answer }),
    (error: unknown) => process.send?.({ error: error instanceof Error ? error.message : 'failed' }),
  );
});
process.on('disconnect', () => process.exit(0));
