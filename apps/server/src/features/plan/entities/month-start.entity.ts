import { Entity, PrimaryColumn } from 'typeorm';
import { IdColumn, InstantColumn, Refers } from '../../../platform/database/columns.js';

/** That somebody began to plan a client's month. */
@Entity('month_starts')
export class MonthStart {
  @Refers('Client', 'fk_month_starts_client')
  @PrimaryColumn('uuid')
  clientId: string;
  /** `YYYY-MM` */
  @PrimaryColumn('text') month: string;
  @Refers('Person', 'fk_month_starts_person')
  @IdColumn()
  personId: string;
  @InstantColumn() at: string;
}
