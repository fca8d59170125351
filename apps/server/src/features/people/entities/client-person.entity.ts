import { Check, Entity, Index, PrimaryColumn } from 'typeorm';
import { Refers, TextColumn } from '../../../platform/database/columns.js';

/** Who manages a client, and who may not work for it. */
@Check('ck_client_people_relation', "relation in ('own', 'barred')")
@Index('ix_client_people_person', ['personId'])
@Entity('client_people')
export class ClientPerson {
  @Refers('Client', 'fk_client_people_client')
  @PrimaryColumn('uuid')
  clientId: string;
  @Refers('Person', 'fk_client_people_person')
  @PrimaryColumn('uuid')
  personId: string;
  @TextColumn({ default: () => "'own'" }) relation: 'own' | 'barred';
}
