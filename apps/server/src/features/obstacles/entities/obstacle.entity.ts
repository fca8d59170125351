import { OBSTACLE_OF, type ObstacleOf } from '@zesting/contract';
import { Check, Entity, Index, VersionColumn } from 'typeorm';
import { DayColumn, IdColumn, IdKey, InstantColumn, oneOf, Refers, TextColumn } from '../../../platform/database/columns.js';

/** Something that stands in the way of a step, or of all that is left of a piece. */
@Check('ck_obstacles_words', "words <> ''")
@Check('ck_obstacles_whose', oneOf('whose', OBSTACLE_OF))
@Check('ck_obstacles_person', "(whose = 'person') = (person_id is not null)")
@Index('ix_obstacles_piece', ['pieceId', 'raisedAt'])
@Index('ix_obstacles_open', ['clientId', 'raisedAt'], { where: 'settled_at is null' })
@Index('ix_obstacles_step', ['stepId'], { where: 'step_id is not null' })
@Entity('obstacles')
export class Obstacle {
  @IdKey() id: string;
  @Refers('Client', 'fk_obstacles_client')
  @IdColumn()
  clientId: string;
  @Refers('Piece', 'fk_obstacles_piece')
  @IdColumn()
  pieceId: string;
  /** null: the whole piece */
  @Refers('Step', 'fk_obstacles_step', { onDelete: 'CASCADE' })
  @IdColumn({ nullable: true })
  stepId: string | null;
  @TextColumn() words: string;
  @TextColumn() whose: ObstacleOf;
  @Refers('Person', 'fk_obstacles_person')
  @IdColumn({ nullable: true })
  personId: string | null;
  /** the last day on which it is expected to stand */
  @DayColumn({ nullable: true }) untilOn: string | null;
  @Refers('Person', 'fk_obstacles_raised_by')
  @IdColumn()
  raisedBy: string;
  @InstantColumn() raisedAt: string;
  /** null where it went with the step that was finished by a client's contact */
  @Refers('Person', 'fk_obstacles_settled_by')
  @IdColumn({ nullable: true })
  settledBy: string | null;
  @InstantColumn({ nullable: true }) settledAt: string | null;
  @TextColumn({ default: '' }) settledWords: string;
  @VersionColumn({ default: 1 }) version: number;
}
