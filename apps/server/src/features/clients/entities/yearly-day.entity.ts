import { Check, Entity } from 'typeorm';
import { IdColumn, IdKey, IntColumn, Made, Refers, TextColumn } from '../../../platform/database/columns.js';

/** A day of note that comes every year, added by hand: for one client to take, or for all. */
@Check('ck_yearly_days_date', 'month between 1 and 12 and day between 1 and 31')
@Made("create unique index uq_yearly_days_name on yearly_days (coalesce(client_id::text, ''), lower(name))")
@Entity('yearly_days')
export class OwnYearlyDay {
  @IdKey() id: string;
  @Refers('Client', 'fk_yearly_days_client')
  @IdColumn({ nullable: true })
  clientId: string | null;
  @TextColumn() name: string;
  @IntColumn() month: number;
  @IntColumn() day: number;
  /** words for what it is about */
  @TextColumn({ array: true, default: () => "'{}'" }) subjects: string[];
}
