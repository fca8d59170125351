import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

/** A mail as it arrived. */
export interface CaughtMail {
  readonly messageId: string;
  readonly to: string;
  /** where an answer goes; empty where none is taken */
  readonly replyTo?: string;
  readonly subject: string;
  readonly text: string;
  readonly html: string;
  readonly arrivedAt: string;
}

/** The most mails that are kept; the oldest go first. */
const KEPT = 500;

/** Keeps caught mail in a folder, one file each, so that a new start still shows it. The same Message-ID is kept once. */
export class MailStore {
  private readonly mails = new Map<string, CaughtMail>();
  private next = 1;

  constructor(private readonly folder: string | null) {
    if (!folder) return;
    mkdirSync(folder, { recursive: true });
    const names = readdirSync(folder).filter((name) => /^\d+\.json$/.test(name));
    for (const name of names.sort().slice(-KEPT)) {
      const mail = JSON.parse(readFileSync(join(folder, name), 'utf8')) as CaughtMail; // written below
      this.mails.set(mail.messageId, mail);
      this.next = Number(name.slice(0, -5)) + 1;
    }
  }

  add(mail: CaughtMail): void {
    if (this.mails.has(mail.messageId)) return;
    this.mails.set(mail.messageId, mail);
    if (this.folder) writeFileSync(join(this.folder, `${String(this.next++).padStart(8, '0')}.json`), JSON.stringify(mail));
    const [oldest] = this.mails.keys();
    if (this.mails.size > KEPT && oldest) this.mails.delete(oldest);
  }

  get(messageId: string): CaughtMail | undefined {
    return this.mails.get(messageId);
  }

  /** Newest first; `to` keeps those for one address. */
  list(to?: string): CaughtMail[] {
    return [...this.mails.values()].reverse().filter((mail) => to === undefined || mail.to.toLowerCase() === to.toLowerCase());
  }
}
