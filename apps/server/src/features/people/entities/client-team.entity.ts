import { Entity, Index, PrimaryColumn } from 'typeorm';
import { IdColumn, Refers } from '../../../platform/database/columns.js';

/** Who usually does the steps of one skill for a client. */
@Index('ix_client_team_person', ['personId'])
@Entity('client_team')
export class ClientTeam {
  @Refers('Client', 'fk_client_team_client')
  @PrimaryColumn('uuid')
  clientId: string;
  @PrimaryColumn('text')
  skill: string;
  @Refers('Person', 'fk_client_team_person')
  @IdColumn()
  personId: string;
}
