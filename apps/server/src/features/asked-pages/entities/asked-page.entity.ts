import { Check, Entity, Index, PrimaryColumn } from 'typeorm';
import { InstantColumn, IntColumn } from '../../../platform/database/columns.js';

/** A page that a link leads to, and what it answered when it was asked last. */
@Check('ck_asked_pages_status', '(status is null) or ((status >= 100) and (status <= 599))')
@Index('ix_asked_pages_next', ['nextAt'], { where: 'next_at is not null' })
@Entity('asked_pages')
export class AskedPage {
  @PrimaryColumn('text') address: string;
  /** of HTTP; null: no answer came, or nobody asked yet */
  @IntColumn({ nullable: true }) status: number | null;
  @InstantColumn({ nullable: true }) askedAt: string | null;
  /** when it is asked; null: no more */
  @InstantColumn({ nullable: true }) nextAt: string | null;
  /** until when its answer is wanted */
  @InstantColumn() wantedUntil: string;
}
