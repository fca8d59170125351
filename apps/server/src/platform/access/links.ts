import { createHmac, timingSafeEqual } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { CONFIG, type Config } from '../config/config.js';
import { Database } from '../database/transaction.js';
import type { InstantText } from '@zesting/core';
import { Clock } from '../time/clock.js';
import type { LinkPurpose } from './policies.js';

export interface OpenedLink {
  readonly purpose: LinkPurpose;
  readonly id: string;
}

/** Where the generation of each kind of link is kept, and when it ends by itself. Raising the generation revokes every link given out before. */
const GENERATIONS: Record<LinkPurpose, string> = {
  ask: `select l.link_generation as generation from form_links l join clients c on c.id = l.client_id join intake_forms f on f.id = l.form_id
    where l.id = $1 and l.link_open and f.archived_at is null and c.archived_at is null`,
  room: `select x.link_generation as generation from contacts x join clients c on c.id = x.client_id
    where x.id = $1 and x.link_open and x.archived_at is null and c.archived_at is null`,
  feed: 'select feed_generation as generation from clients where id = $1 and feed_open and archived_at is null',
  receipt: `select r.link_generation as generation from requests r join clients c on c.id = r.client_id
    where r.id = $1 and r.link_open and c.archived_at is null`,
  invite: 'select link_generation as generation from people where id = $1 and active',
  reset: `select 1 as generation, r.ends_at as "endsAt" from password_resets r join people p on p.id = r.person_id
    where r.id = $1 and r.used_at is null and p.active`,
};

/** Nobody opens a form, reads it and sends it within two seconds. */
const LEAST_MS = 2_000;
const MOST_MS = 90 * 86_400_000;

/** Personal links: token = id, generation, HMAC(server key, purpose, id, generation). */
@Injectable()
export class Links {
  constructor(
    @Inject(CONFIG) private readonly config: Config,
    private readonly database: Database,
    private readonly clock: Clock,
  ) {}

  /** The token for a thing's link, at the generation given. */
  token(purpose: LinkPurpose, id: string, generation: number): string {
    const body = Buffer.concat([Buffer.from(id.replaceAll('-', ''), 'hex'), Buffer.from([generation >> 8, generation & 255])]);
    return Buffer.concat([body, this.mac(purpose, body)]).toString('base64url');
  }

  /** The full address of a link. */
  address(purpose: Exclude<LinkPurpose, 'feed'>, id: string, generation: number): string {
    const path = { ask: '/ask/', receipt: '/ask/receipt/', room: '/room/', invite: '/invite/', reset: '/reset/' }[purpose];
    return `${this.config.publicAddress}${path}${this.token(purpose, id, generation)}`;
  }

  /** Opens a token; undefined when it is forged, revoked, or for another purpose. */
  async open(purpose: LinkPurpose, token: string): Promise<OpenedLink | undefined> {
    const bytes = Buffer.from(token, 'base64url');
    if (bytes.length !== 34) return undefined;
    const body = bytes.subarray(0, 18);
    if (!timingSafeEqual(bytes.subarray(18), this.mac(purpose, body))) return undefined;
    const id = body
      .subarray(0, 16)
      .toString('hex')
      .replace(/^(.{8})(.{4})(.{4})(.{4})/, '$1-$2-$3-$4-');
    const [row] = await this.database.read<{ generation: number; endsAt?: string }>(GENERATIONS[purpose], [id]);
    if (row?.endsAt !== undefined && Date.parse(row.endsAt) <= Date.parse(this.clock.now())) return undefined;
    return row?.generation === body.readUInt16BE(16) ? { purpose, id } : undefined;
  }

  /** The sites that may embed the form that a token opens; none for a token that opens nothing. */
  async embeddingSites(token: string): Promise<string[]> {
    const link = await this.open('ask', token);
    if (!link) return [];
    const [row] = await this.database.read<{ origins: string[] }>('select origins from form_links where id = $1', [link.id]);
    return row?.origins ?? [];
  }

  /** Proves that a page was opened by a link, and when: goes out with the page and comes back with what is sent. */
  stamp(id: string, now: InstantText): string {
    return `${Date.parse(now)}.${this.mac('stamp', Buffer.from(`${id} ${Date.parse(now)}`)).toString('base64url')}`;
  }

  /** Whether a stamp was given out for that link, long enough ago for a person to have typed something and not longer than a draft is kept. */
  isStamped(id: string, stamp: string, now: InstantText): boolean {
    const at = Number(stamp.split('.')[0]);
    if (!Number.isSafeInteger(at)) return false;
    const [given, expected] = [Buffer.from(stamp), Buffer.from(this.stamp(id, new Date(at).toISOString() as InstantText))];
    const age = Date.parse(now) - at;
    return given.length === expected.length && timingSafeEqual(given, expected) && age >= LEAST_MS && age <= MOST_MS;
  }

  private mac(purpose: LinkPurpose | 'stamp', body: Buffer): Buffer {
    return createHmac('sha256', this.config.serverKey).update(purpose).update(body).digest().subarray(0, 16);
  }
}

/** The cookie that stands for an opened link. */
export const linkCookie = (purpose: LinkPurpose, id: string): string => `zesting_${purpose}_${id.slice(0, 8)}`;
