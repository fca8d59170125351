import { parentPort } from 'node:worker_threads';
import type { WorkAnswer, WorkMessage } from '../work/work.js';
import { readMail, type ReadMail } from './read-mail.js';

/** What is handed to the worker. */
export interface MailTask {
  readonly raw: Uint8Array;
  readonly returnPath: string;
}
/** The mail; null where it cannot be read. */
export type MailRead = ReadMail | null;

parentPort?.on('message', ({ number, task }: WorkMessage<MailTask>) => {
  const say = (answer: MailRead) => parentPort?.postMessage({ number, answer } satisfies WorkAnswer<MailRead>);
  const { raw, returnPath } = task;
  readMail(Buffer.from(raw.buffer, raw.byteOffset, raw.byteLength), returnPath).then(say, () => say(null));
});
