import { Check, Entity } from 'typeorm';
import { BoolColumn, IdColumn, IdKey, InstantColumn, IntColumn, Made, Refers, TextColumn } from '../../../platform/database/columns.js';

/** A person at a client: may ask, look or sign off. */
@Made('create unique index uq_contacts_email on contacts (client_id, lower(email)) where archived_at is null')
@Check('ck_contacts_weight', 'weight >= 1 and weight <= 3')
@Entity('contacts')
export class Contact {
  @IdKey() id: string;
  @Refers('Client', 'fk_contacts_client')
  @IdColumn()
  clientId: string;
  @TextColumn() name: string;
  @TextColumn() email: string;
  @BoolColumn({ default: true }) canAsk: boolean;
  @BoolColumn({ default: false }) canSignOff: boolean;
  @IntColumn({ default: 1 }) linkGeneration: number;
  @BoolColumn({ default: true }) canView: boolean;
  @IntColumn({ default: 0 }) position: number;
  /** how much what they ask for counts beside what others ask: 1 as usual, to 3 */
  @IntColumn({ default: 1 }) weight: number;
  @InstantColumn({ nullable: true }) archivedAt: string | null;
  @BoolColumn({ default: true }) linkOpen: boolean;
}
