import type { Proposal, SlottingCase } from '@zesting/core';

/** Asks core for a filling of a period's slots, in a worker that ends with its answer. */
export function proposeInWorker(whole: SlottingCase): Promise<Proposal> {
  const worker = new Worker(new URL('../workers/propose.worker.ts', import.meta.url), { type: 'module' });
  return new Promise<Proposal>((resolve, reject) => {
    worker.addEventListener('message', ({ data }: MessageEvent<Proposal>) => resolve(data));
    worker.addEventListener('error', () => reject(new Error('the proposal was not reckoned')));
    worker.postMessage(whole);
  }).finally(() => worker.terminate());
}
