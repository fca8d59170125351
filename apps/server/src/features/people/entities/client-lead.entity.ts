import { Entity, PrimaryColumn } from 'typeorm';
import { IdColumn, Refers } from '../../../platform/database/columns.js';

/** Who answers for a client's pieces, but for those that somebody else answers for. */
@Entity('client_leads')
export class ClientLead {
  @Refers('Client', 'fk_client_leads_client')
  @PrimaryColumn('uuid')
  clientId: string;
  @Refers('Person', 'fk_client_leads_person')
  @IdColumn()
  personId: string;
}
