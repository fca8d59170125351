import { Check, Entity, Index } from 'typeorm';
import {
  DayColumn,
  IdColumn,
  IdKey,
  InstantColumn,
  IntColumn,
  Made,
  oneOf,
  Refers,
  TextColumn,
} from '../../../platform/database/columns.js';

export const IDEA_STATES = ['open', 'dropped', 'used', 'combined'] as const;

/** Something worth making, for a client or for none yet. */
@Check('ck_ideas_state', oneOf('state', IDEA_STATES))
@Check('ck_ideas_marks', 'coalesce(merit, 1) between 1 and 5 and coalesce(ease, 1) between 1 and 5 and coalesce(chance, 1) between 1 and 5')
@Check('ck_ideas_used', "(state = 'used') = (piece_id is not null)")
@Check('ck_ideas_combined', "(state = 'combined') = (combined_into is not null)")
@Check('ck_ideas_caught_by', 'num_nonnulls(author_id, contact_id) = 1')
@Index('ix_ideas_piece', ['pieceId'], { where: 'piece_id is not null' })
@Index('ix_ideas_combined', ['combinedInto'], { where: 'combined_into is not null' })
@Made('alter table ideas add column title_plain text generated always as (plain_letters(title)) stored')
@Made('create index ix_ideas_client on ideas (client_id, state, created_at desc, id)')
@Made('create index ix_ideas_title_plain on ideas using gin (title_plain gin_trgm_ops)')
@Entity('ideas')
export class Idea {
  @IdKey() id: string;
  @Refers('Client', 'fk_ideas_client')
  @IdColumn({ nullable: true })
  clientId: string | null;
  @TextColumn() title: string;
  @TextColumn({ default: () => "''" }) note: string;
  @TextColumn({ nullable: true }) link: string | null;
  @Refers('Pillar', 'fk_ideas_pillar')
  @IdColumn({ nullable: true })
  pillarId: string | null;
  @Refers('Format', 'fk_ideas_format')
  @IdColumn({ nullable: true })
  formatId: string | null;
  @Refers('Channel', 'fk_ideas_channel')
  @IdColumn({ nullable: true })
  channelId: string | null;
  /** what it is weighed by, 1 to 5; null: not weighed */
  @IntColumn({ nullable: true }) merit: number | null;
  @IntColumn({ nullable: true }) ease: number | null;
  @IntColumn({ nullable: true }) chance: number | null;
  @DayColumn({ nullable: true }) notBeforeOn: string | null;
  @DayColumn({ nullable: true }) freshUntilOn: string | null;
  @TextColumn({ default: () => "'open'" }) state: (typeof IDEA_STATES)[number];
  /** what it became */
  @Refers('Piece', 'fk_ideas_piece')
  @IdColumn({ nullable: true })
  pieceId: string | null;
  /** the idea that it is a part of now */
  @Refers('Idea', 'fk_ideas_combined')
  @IdColumn({ nullable: true })
  combinedInto: string | null;
  /** who caught it; null: a contact, by mail */
  @Refers('Person', 'fk_ideas_author')
  @IdColumn({ nullable: true })
  authorId: string | null;
  @Refers('Contact', 'fk_ideas_contact')
  @IdColumn({ nullable: true })
  contactId: string | null;
  @InstantColumn() createdAt: string;
  @IntColumn({ default: 1 }) version: number;
}
