import { fileURLToPath } from 'node:url';
import { Worker } from 'node:worker_threads';

export interface Limits {
  readonly milliseconds: number;
  readonly megabytes: number;
}

/** Where the compiled worker of a source file lies: workers are always the compiled ones, also where the server runs from its sources. */
export const compiled = (url: URL): string => fileURLToPath(url).replace(/([\\/]apps[\\/]server[\\/])src([\\/])/, '$1dist$2');

/**
 * Runs a worker on one input, in a thread of its own, with an end to its time and memory: for what comes from outside and may never end.
 * The worker posts its answer once.
 * @param script the worker's file, beside the caller
 * @param signal ends it when nobody waits any more
 * @returns the answer; undefined when it took too long, too much, was ended, or failed
 */
export function runLimited<Input, Output>(
  script: URL,
  input: Input,
  { milliseconds, megabytes }: Limits,
  signal?: AbortSignal,
): Promise<Output | undefined> {
  return new Promise((resolve) => {
    if (signal?.aborted) return resolve(undefined);
    const worker = new Worker(compiled(script), {
      workerData: input,
      resourceLimits: { maxOldGenerationSizeMb: megabytes },
    });
    const end = (answer: Output | undefined) => {
      clearTimeout(timer);
      signal?.removeEventListener('abort', leave);
      resolve(answer);
      void worker.terminate();
    };
    const leave = () => end(undefined);
    signal?.addEventListener('abort', leave, { once: true });
    const timer = setTimeout(() => end(undefined), milliseconds);
    worker.once('message', (answer: Output) => end(answer));
    worker.once('error', () => end(undefined));
    worker.once('exit', () => end(undefined));
  });
}
