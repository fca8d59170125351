import { Entity, PrimaryColumn } from 'typeorm';
import { Refers } from '../../../platform/database/columns.js';

/** Who has had a step of a client’s. Kept by a trigger as steps are given. */
@Entity('worked_clients')
export class WorkedClient {
  @Refers('Person', 'fk_worked_clients_person')
  @PrimaryColumn('uuid')
  personId: string;
  @Refers('Client', 'fk_worked_clients_client')
  @PrimaryColumn('uuid')
  clientId: string;
}
