import { createHash } from 'node:crypto';
import { appendFileSync, existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

/** What came to a channel, as the interface of channels describes it (docs/channels.md). */
export interface ChannelPost {
  readonly channelId: string;
  readonly reference: string;
  readonly from: string;
  readonly text: string;
  /** the same with its headings, lists and links, from whoever sends it; shown on pages where no script runs */
  readonly html?: string | null;
  /** what there is besides, such as a subject line */
  readonly texts?: readonly { readonly name: string; readonly text: string }[];
  readonly tags: readonly string[];
  readonly link: string | null;
  readonly audience: string | null;
  readonly media: readonly {
    readonly sha256: string;
    readonly name: string;
    readonly mime: string;
    readonly alt: string;
    /** the picture that stands for a clip before it plays */
    readonly cover?: string | null;
  }[];
  readonly meantFor: string;
  readonly publishedAt: string;
  readonly firstComment: string | null;
}

/** Posts and files of the simulated channels, in memory and, with a folder, on disk. It doubles whatever it is sent twice, as channels do. */
export class ChannelStore {
  private readonly posts: ChannelPost[] = [];
  private readonly closed = new Set<string>();
  /** what broke down: nobody can say for sure what became of it */
  private readonly broken = new Set<string>();
  private readonly files = new Map<string, Buffer>();

  constructor(private readonly folder: string | null) {
    if (folder === null) return;
    mkdirSync(join(folder, 'files'), { recursive: true });
    for (const line of existsSync(this.logPath) ? readFileSync(this.logPath, 'utf8').split('\n') : []) this.replay(line);
  }

  private get logPath(): string {
    return join(this.folder ?? '', 'posts.jsonl');
  }

  /** A line that was cut off by the machine's end is none. */
  private replay(line: string): void {
    try {
      const said = JSON.parse(line) as { post?: ChannelPost; closed?: string; broken?: string; comment?: { key: string; text: string } }; // written by `keep` alone
      if (said.post) this.posts.push(said.post);
      if (said.closed) this.closed.add(said.closed);
      if (said.broken) this.broken.add(said.broken);
      if (said.comment) this.putComment(said.comment.key, said.comment.text);
    } catch {
      return;
    }
  }

  private keep(said: object): void {
    if (this.folder !== null) appendFileSync(this.logPath, `${JSON.stringify(said)}\n`);
  }

  /** Newest first. */
  list(): ChannelPost[] {
    return [...this.posts].reverse();
  }

  find(channelId: string, reference: string): ChannelPost | undefined {
    return this.posts.find((post) => post.channelId === channelId && post.reference === reference);
  }

  add(post: ChannelPost): void {
    this.posts.push(post);
    this.keep({ post });
  }

  /** Never takes anything under that reference any more. */
  close(channelId: string, reference: string): void {
    const key = `${channelId} ${reference}`;
    this.closed.add(key);
    this.keep({ closed: key });
  }

  /** Never can say for sure what became of that reference. */
  breakDown(channelId: string, reference: string): void {
    const key = `${channelId} ${reference}`;
    this.broken.add(key);
    this.keep({ broken: key });
  }

  isBroken(channelId: string, reference: string): boolean {
    return this.broken.has(`${channelId} ${reference}`);
  }

  isClosed(channelId: string, reference: string): boolean {
    return this.closed.has(`${channelId} ${reference}`);
  }

  comment(channelId: string, reference: string, text: string): void {
    const key = `${channelId} ${reference}`;
    this.putComment(key, text);
    this.keep({ comment: { key, text } });
  }

  private putComment(key: string, text: string): void {
    for (const [index, post] of this.posts.entries())
      if (`${post.channelId} ${post.reference}` === key) this.posts[index] = { ...post, firstComment: text };
  }

  /** Keeps a file under its hash. @returns whether it has that hash */
  putFile(sha256: string, bytes: Buffer): boolean {
    if (createHash('sha256').update(bytes).digest('hex') !== sha256) return false;
    if (this.folder === null) this.files.set(sha256, bytes);
    else writeFileSync(join(this.folder, 'files', sha256), bytes);
    return true;
  }

  file(sha256: string): Buffer | undefined {
    if (this.folder === null) return this.files.get(sha256);
    const path = join(this.folder, 'files', sha256);
    return existsSync(path) ? readFileSync(path) : undefined;
  }
}
