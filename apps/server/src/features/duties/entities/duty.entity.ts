import { Check, Entity, Index } from 'typeorm';
import { DayColumn, IdColumn, IdKey, IntColumn, Refers, TextColumn } from '../../../platform/database/columns.js';

/** Work that is no step of a piece, or a piece that comes again. */
@Check('ck_duties_lead_days', 'lead_days between 0 and 180')
@Check('ck_duties_minutes', 'minutes between 0 and 2400')
@Check('ck_duties_piece', 'route_id is null or client_id is not null')
@Check('ck_duties_order', 'until_on is null or until_on >= from_on')
@Index('ix_duties_client', ['clientId'])
@Index('ix_duties_lead', ['leadId'])
@Index('ix_duties_second', ['secondId'])
@Entity('duties')
export class Duty {
  @IdKey() id: string;
  /** null: the agency's own */
  @Refers('Client', 'fk_duties_client')
  @IdColumn({ nullable: true })
  clientId: string | null;
  @TextColumn() title: string;
  @TextColumn({ default: () => "''" }) remark: string;
  @TextColumn({ array: true, default: () => "'{}'" }) checklist: string[];
  /** as RFC 5545 has it; null: once, on its first day */
  @TextColumn({ nullable: true }) rule: string | null;
  @DayColumn() anchorOn: string;
  /** what comes before it is told by its marks alone */
  @DayColumn() fromOn: string;
  @DayColumn({ nullable: true }) untilOn: string | null;
  @IntColumn({ default: 0 }) leadDays: number;
  @Refers('Person', 'fk_duties_lead')
  @IdColumn()
  leadId: string;
  @Refers('Person', 'fk_duties_second')
  @IdColumn({ nullable: true })
  secondId: string | null;
  @IntColumn({ default: 0 }) minutes: number;
  /** how its piece is made; null: it makes none */
  @Refers('Route', 'fk_duties_route')
  @IdColumn({ nullable: true })
  routeId: string | null;
  @IdColumn({ array: true, default: () => "'{}'" }) channelIds: string[];
  @Refers('Pillar', 'fk_duties_pillar')
  @IdColumn({ nullable: true })
  pillarId: string | null;
  @IntColumn({ default: 1 }) version: number;
}
