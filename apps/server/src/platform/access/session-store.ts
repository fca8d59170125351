import connectPgSimple from 'connect-pg-simple';
import session, { type SessionData } from 'express-session';
import type pg from 'pg';
import type { InstantText } from '@zesting/core';
import { viewerColumns, viewerFrom, type Viewer, type ViewerRow } from './viewers.js';

declare module 'express-session' {
  interface SessionData {
    personId: string;
    /** when, with which program and from which address somebody signed in */
    signedInAt: InstantText;
    agent: string;
    address: string;
    /** read anew with each request */
    holder?: Holder;
  }
}

/** Whose session it is, as found when it was read. It is no part of what is stored. */
export class Holder {
  constructor(readonly viewer: Viewer | undefined) {}

  toJSON(): undefined {
    return undefined;
  }
}

const READ = `select s.sess, ${viewerColumns('$2')}
  from sessions s left join people p on p.id = (s.sess ->> 'personId')::uuid and p.active
  where s.sid = $1 and s.expire >= now()`;

/** Sessions in the database. One statement reads a session together with whom it belongs to and what they may see. */
export class SessionStore extends connectPgSimple(session) {
  constructor(
    private readonly connections: pg.Pool,
    private readonly now: () => InstantText,
  ) {
    super({ pool: connections, tableName: 'sessions', pruneSessionInterval: false, disableTouch: true });
  }

  override get(sid: string, done: (error: unknown, data?: SessionData | null) => void): void {
    this.connections.query<Omit<ViewerRow, 'person_id'> & { person_id: string | null; sess: SessionData }>(READ, [sid, this.now()]).then(
      ({ rows: [row] }) => {
        const { person_id: personId } = row ?? {};
        done(null, row ? { ...row.sess, holder: new Holder(personId ? viewerFrom({ ...row, person_id: personId }) : undefined) } : null);
      },
      (error: unknown) => done(error),
    );
  }
}
