import { Check, Entity, Index, Unique } from 'typeorm';
import { DayColumn, IdColumn, IdKey, InstantColumn, IntColumn, Made, Refers, TextColumn } from '../../../platform/database/columns.js';

/** Questions that were put to somebody who knows: about an idea, a piece, or the client. */
@Check('ck_interviews_about', 'num_nonnulls(idea_id, piece_id) <= 1')
@Made('create index ix_interviews_client on interviews (client_id, asked_at desc, id)')
@Index('ix_interviews_idea', ['ideaId'], { where: 'idea_id is not null' })
@Index('ix_interviews_piece', ['pieceId'], { where: 'piece_id is not null' })
@Index('ix_interviews_contact', ['contactId'], { where: 'closed_at is null' })
@Entity('interviews')
export class Interview {
  @IdKey() id: string;
  @Refers('Client', 'fk_interviews_client')
  @IdColumn()
  clientId: string;
  @Refers('Idea', 'fk_interviews_idea')
  @IdColumn({ nullable: true })
  ideaId: string | null;
  @Refers('Piece', 'fk_interviews_piece')
  @IdColumn({ nullable: true })
  pieceId: string | null;
  @TextColumn() title: string;
  /** who answers in the room; null: the team writes down what it hears */
  @Refers('Contact', 'fk_interviews_contact')
  @IdColumn({ nullable: true })
  contactId: string | null;
  /** who is asked, where it is no contact */
  @TextColumn({ default: () => "''" }) answerer: string;
  @DayColumn({ nullable: true }) dueOn: string | null;
  @Refers('Person', 'fk_interviews_person')
  @IdColumn()
  askedBy: string;
  @InstantColumn() askedAt: string;
  @InstantColumn({ nullable: true }) closedAt: string | null;
  @IntColumn({ default: 1 }) version: number;
}

/** One question of an interview, and its answer. */
@Check('ck_interview_questions_answered', "(answer <> '') = (answered_by is not null) and (answer <> '') = (answered_at is not null)")
@Unique('uq_interview_questions_position', ['interviewId', 'position'])
@Entity('interview_questions')
export class InterviewQuestion {
  @IdKey() id: string;
  @Refers('Interview', 'fk_interview_questions_interview')
  @IdColumn()
  interviewId: string;
  @IntColumn() position: number;
  @TextColumn() question: string;
  @TextColumn({ default: () => "''" }) answer: string;
  @TextColumn({ nullable: true }) answeredBy: string | null;
  @InstantColumn({ nullable: true }) answeredAt: string | null;
  @IntColumn({ default: 1 }) version: number;
}
