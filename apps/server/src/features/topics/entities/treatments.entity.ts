import { Entity, PrimaryColumn } from 'typeorm';
import { IntColumn, Refers, TextColumn } from '../../../platform/database/columns.js';

/** In which ways a client's subjects can be treated. Its row is locked by whoever changes the client's topics. */
@Entity('treatments')
export class Treatments {
  @Refers('Client', 'fk_treatments_client')
  @PrimaryColumn('uuid')
  clientId: string;
  @TextColumn({ array: true, default: () => "'{}'" }) names: string[];
  @IntColumn({ default: 1 }) version: number;
}
