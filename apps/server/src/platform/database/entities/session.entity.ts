import { Column, Entity, Index, PrimaryColumn } from 'typeorm';
import { InstantColumn, Made } from '../columns.js';

/** Who is signed in, or came by a link. */
@Index('ix_sessions_expire', ['expire'])
@Made("create index ix_sessions_person on sessions (((sess ->> 'personId')))")
@Entity('sessions')
export class Session {
  @PrimaryColumn('varchar') sid: string;
  @Column({ type: 'json' }) sess: unknown;
  @Column({ type: 'timestamp', precision: 6 }) expire: Date;
  @InstantColumn({ nullable: true }) seenAt: string | null;
}
