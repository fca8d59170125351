import type { Audience } from '@zesting/contract';
import { Check, Entity, Index } from 'typeorm';
import { IdColumn, IdKey, InstantColumn, Refers, TextColumn } from '../../../platform/database/columns.js';

/** What was said to a remark. */
@Check('ck_remark_replies_text', "text <> ''")
@Check('ck_remark_replies_by', 'num_nonnulls(contact_id, author_id) = 1')
@Check('ck_remark_replies_audience', "audience in ('team', 'client') and (contact_id is null or audience = 'client')")
@Index('ix_remark_replies_remark', ['remarkId', 'createdAt'])
@Entity('remark_replies')
export class RemarkReply {
  @IdKey() id: string;
  @Refers('Remark', 'fk_remark_replies_remark')
  @IdColumn()
  remarkId: string;
  @Refers('Contact', 'fk_remark_replies_contact')
  @IdColumn({ nullable: true })
  contactId: string | null;
  @Refers('Person', 'fk_remark_replies_author')
  @IdColumn({ nullable: true })
  authorId: string | null;
  @TextColumn() audience: Audience;
  @TextColumn() text: string;
  @IdColumn({ array: true, default: () => "'{}'" }) mentionIds: string[];
  @InstantColumn() createdAt: string;
  /** taken back: kept, shown to nobody */
  @InstantColumn({ nullable: true }) removedAt: string | null;
}
