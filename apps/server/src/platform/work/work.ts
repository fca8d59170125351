import { Worker } from 'node:worker_threads';
import { Inject, Injectable, type OnApplicationShutdown } from '@nestjs/common';
import { CONFIG, type Config } from '../config/config.js';
import { compiled } from './limited.js';

/** What a lasting worker is given when it starts, and what goes to and fro. */
export interface WorkerStart {
  readonly databaseUrl: string;
}
export interface WorkMessage<Task> {
  readonly number: number;
  readonly task: Task;
}
export interface WorkAnswer<Answer> {
  readonly number: number;
  readonly answer?: Answer;
  /** what went wrong; the state of the database's error is kept, so that an outage is known as one */
  readonly error?: { readonly message: string; readonly code?: string };
}

/** One lasting thread per script: its tasks are done one after the other. */
class WorkThread {
  private worker: Worker | undefined;
  private last: Promise<unknown> = Promise.resolve();
  private count = 0;

  constructor(
    private readonly path: string,
    private readonly start: WorkerStart,
  ) {}

  ask<Task, Answer>(task: Task, milliseconds: number): Promise<Answer> {
    const answer = this.last.then(() => this.run<Task, Answer>(task, milliseconds));
    this.last = answer.catch(() => undefined);
    return answer;
  }

  async end(): Promise<void> {
    await this.worker?.terminate();
    this.worker = undefined;
  }

  private run<Task, Answer>(task: Task, milliseconds: number): Promise<Answer> {
    this.worker ??= this.begin();
    const { worker } = this;
    const number = ++this.count;
    return new Promise((resolve, reject) => {
      const lose = (error: Error) => {
        finish();
        if (this.worker === worker) this.worker = undefined;
        void worker.terminate();
        reject(error);
      };
      const hear = (message: WorkAnswer<Answer>) => {
        if (message.number !== number) return;
        finish();
        if (message.error) reject(Object.assign(new Error(message.error.message), { code: message.error.code }));
        else resolve(message.answer as Answer); // the worker's own answer to this task
      };
      const ended = () => lose(new Error('the worker ended'));
      const timer = setTimeout(() => lose(new Error('the work took too long')), milliseconds);
      const finish = () => {
        clearTimeout(timer);
        worker.off('message', hear).off('error', lose).off('exit', ended);
      };
      worker.on('message', hear).once('error', lose).once('exit', ended);
      worker.postMessage({ number, task } satisfies WorkMessage<Task>);
    });
  }

  private begin(): Worker {
    const worker = new Worker(this.path, { workerData: this.start });
    worker.unref();
    return worker;
  }
}

/** Heavy work in threads of their own, beside the server's main one, which only waits for the answer. */
@Injectable()
export class Work implements OnApplicationShutdown {
  private readonly threads = new Map<string, WorkThread>();

  constructor(@Inject(CONFIG) private readonly config: Config) {}

  /**
   * Gives a task to the lasting worker of a script; its tasks wait for each other.
   * @throws Error when it takes longer than `milliseconds`, or fails
   */
  ask<Task, Answer>(script: URL, task: Task, milliseconds: number): Promise<Answer> {
    const path = compiled(script);
    const thread = this.threads.get(path) ?? new WorkThread(path, { databaseUrl: this.config.databaseUrl });
    this.threads.set(path, thread);
    return thread.ask<Task, Answer>(task, milliseconds);
  }

  async onApplicationShutdown(): Promise<void> {
    for (const thread of this.threads.values()) await thread.end();
  }
}
