import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

/** What a simulated page can be told to answer. */
export const PAGE_ANSWERS = {
  there: { words: 'is there', status: 200 },
  gone: { words: 'is not found', status: 404 },
  broken: { words: 'breaks down', status: 500 },
  silent: { words: 'does not answer', status: null },
} as const;
export type SimulatedAnswer = keyof typeof PAGE_ANSWERS;

/** The web as the demo knows it: every page is there but those of which something else was said. In memory and, with a folder, on disk. */
export class SimulatedPages {
  private readonly said = new Map<string, SimulatedAnswer>();

  constructor(private readonly folder: string | null) {
    if (folder !== null && existsSync(this.path))
      for (const [address, answer] of JSON.parse(readFileSync(this.path, 'utf8')) as [string, SimulatedAnswer][])
        // written by `say` alone
        this.said.set(address, answer);
  }

  private get path(): string {
    return join(this.folder ?? '', 'pages.json');
  }

  say(address: string, answer: SimulatedAnswer): void {
    if (answer === 'there') this.said.delete(address);
    else this.said.set(address, answer);
    if (this.folder !== null) writeFileSync(this.path, JSON.stringify([...this.said]));
  }

  statusOf(address: string): number | null {
    return PAGE_ANSWERS[this.said.get(address) ?? 'there'].status;
  }

  /** Those that are not simply there. */
  list(): [address: string, answer: SimulatedAnswer][] {
    return [...this.said];
  }
}
