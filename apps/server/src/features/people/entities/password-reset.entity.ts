import { Entity, Index } from 'typeorm';
import { IdColumn, IdKey, InstantColumn, Refers } from '../../../platform/database/columns.js';

/** A link by which somebody chooses a password anew. */
@Index('ix_password_resets_person', ['personId', 'askedAt'])
@Entity('password_resets')
export class PasswordReset {
  @IdKey() id: string;
  @Refers('Person', 'fk_password_resets_person', { onDelete: 'CASCADE' })
  @IdColumn()
  personId: string;
  @InstantColumn() askedAt: string;
  @InstantColumn() endsAt: string;
  @InstantColumn({ nullable: true }) usedAt: string | null;
}
