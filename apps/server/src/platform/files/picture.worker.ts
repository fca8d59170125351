import { measureClip } from './clip-work.js';
import { makeCuts, makeSizes, measure } from './picture-work.js';
import type { PictureTask } from './picture-process.js';

const bytesOf = (source: string | Uint8Array): string | Buffer => (typeof source === 'string' ? source : Buffer.from(source));

function workOf(task: PictureTask): Promise<unknown> {
  switch (task.kind) {
    case 'measure':
      return measure(bytesOf(task.source));
    case 'measure_clip':
      return measureClip(task.source);
    case 'sizes':
      return makeSizes(task.source, task.widths);
    case 'cut':
      return makeCuts(task.source, task.crop);
  }
}

// A process of its own: a picture that takes too much or breaks the library ends this process and nothing else.
process.on('message', (task: PictureTask) => {
  workOf(task).then(
    (answer) => process.send?.({ answer }),
    (error: unknown) => process.send?.({ error: error instanceof Error ? error.message : 'failed' }),
  );
});
process.on('disconnect', () => process.exit(0));
