import { Check, Entity, Index } from 'typeorm';
import { DayColumn, IdColumn, IdKey, Refers, TextColumn } from '../../../platform/database/columns.js';

/** Days on which a client does not work, beyond its week and its holidays. */
@Check('ck_client_closures_order', 'start_on <= end_on')
@Index('ix_client_closures_client', ['clientId', 'startOn'])
@Entity('client_closures')
export class ClientClosure {
  @IdKey() id: string;
  @Refers('Client', 'fk_client_closures_client')
  @IdColumn()
  clientId: string;
  @DayColumn() startOn: string;
  @DayColumn() endOn: string;
  @TextColumn() name: string;
}
