import { fork, type ChildProcess } from 'node:child_process';
import { Injectable, type OnApplicationShutdown } from '@nestjs/common';
import { compiled } from '../work/limited.js';
import type { Crop } from '@zesting/core';
import type { ClipFacts } from './clip-work.js';
import type { MadeCut, MadeSize } from './picture-work.js';
import type { PictureWidth } from './pictures.js';

export type PictureTask =
  | { readonly kind: 'measure'; readonly source: string | Uint8Array }
  | { readonly kind: 'measure_clip'; readonly source: string | Uint8Array }
  | { readonly kind: 'cut'; readonly source: string; readonly crop: Crop }
  | { readonly kind: 'sizes'; readonly source: string; readonly widths: readonly PictureWidth[] };

export type StoredSize = Pick<MadeSize, 'marked' | 'mime'> & { readonly width: PictureWidth };

/** How long one picture may take, and how long the process waits for another one before it ends. */
const PATIENCE_MS = 60_000;
const IDLE_MS = 30_000;

/**
 * Work on pictures, one at a time, in a process of its own: however many come and however large they are, the server itself keeps its
 * memory and its time. A picture that ends the process is a broken picture; the next one finds a new process.
 */
@Injectable()
export class PictureProcess implements OnApplicationShutdown {
  private child: ChildProcess | undefined;
  private idle: NodeJS.Timeout | undefined;
  private last: Promise<unknown> = Promise.resolve();

  /** Width and height; `too_large` or `broken`. */
  async measure(source: string | Uint8Array): Promise<{ width: number; height: number } | 'too_large' | 'broken'> {
    return (await this.ask<{ width: number; height: number } | 'too_large' | 'broken'>({ kind: 'measure', source })) ?? 'broken';
  }

  /** The picture in several widths, each with and without the mark; undefined when that cannot be done. */
  sizes(source: string, widths: readonly PictureWidth[]): Promise<(StoredSize & { readonly bytes: Uint8Array })[] | undefined> {
    return this.ask({ kind: 'sizes', source, widths });
  }

  /** The length and size of a clip or sound; nothing is known of one that cannot be read. */
  async measureClip(source: string | Uint8Array): Promise<ClipFacts> {
    return (await this.ask<ClipFacts>({ kind: 'measure_clip', source })) ?? { durationMs: null, width: null, height: null };
  }

  /** What a crop cuts out of a picture, with and without the mark; undefined when that cannot be done. */
  cuts(source: string, crop: Crop): Promise<MadeCut[] | undefined> {
    return this.ask({ kind: 'cut', source, crop });
  }

  onApplicationShutdown(): void {
    clearTimeout(this.idle);
    this.child?.kill('SIGKILL');
  }

  private ask<Answer>(task: PictureTask): Promise<Answer | undefined> {
    const answer = this.last.then(() => this.run<Answer>(task));
    this.last = answer.catch(() => undefined);
    return answer;
  }

  private run<Answer>(task: PictureTask): Promise<Answer | undefined> {
    clearTimeout(this.idle);
    this.child ??= this.start();
    const { child } = this;
    return new Promise((resolve) => {
      const end = (answer: Answer | undefined, isLost: boolean) => {
        clearTimeout(timer);
        child.removeAllListeners('message').removeAllListeners('exit');
        if (isLost) {
          child.kill('SIGKILL');
          this.child = undefined;
        } else {
          this.idle = setTimeout(() => {
            this.child?.kill('SIGKILL');
            this.child = undefined;
          }, IDLE_MS);
          this.idle.unref();
        }
        resolve(answer);
      };
      const timer = setTimeout(() => end(undefined, true), PATIENCE_MS);
      child.once('message', (message: { answer?: Answer }) => end(message.answer, false));
      child.once('exit', () => end(undefined, true));
      child.send(task, (error) => error && end(undefined, true));
    });
  }

  private start(): ChildProcess {
    const child = fork(compiled(new URL('./picture.worker.js', import.meta.url)), {
      serialization: 'advanced',
      stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
      execArgv: [],
    });
    child.on('error', () => undefined); // its end is heard
    child.unref();
    child.channel?.unref();
    return child;
  }
}
