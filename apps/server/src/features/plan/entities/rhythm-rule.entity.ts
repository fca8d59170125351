import { PURPOSES, type Purpose } from '@zesting/core';
import { Check, Entity, Index } from 'typeorm';
import {
  BoolColumn,
  DayColumn,
  IdColumn,
  IdKey,
  IntColumn,
  oneOf,
  Refers,
  TextColumn,
  TimeColumn,
} from '../../../platform/database/columns.js';

/** One line of a client's rhythm, as long as it holds. What is changed later ends it, and begins another. */
@Check('ck_rhythm_rules_order', 'until_on is null or from_on <= until_on')
@Check('ck_rhythm_rules_purpose', oneOf('purpose', PURPOSES))
@Index('ix_rhythm_rules_client', ['clientId', 'untilOn'])
@Entity('rhythm_rules')
export class StoredRule {
  @IdKey() id: string;
  @Refers('Client', 'fk_rhythm_rules_client')
  @IdColumn()
  clientId: string;
  @Refers('Channel', 'fk_rhythm_rules_channel')
  @IdColumn()
  channelId: string;
  /** a recurrence rule of days, RFC 5545 */
  @TextColumn() rule: string;
  @TimeColumn() atTime: string;
  /** what rules of every second or third week are counted from */
  @DayColumn() anchorOn: string;
  @DayColumn() fromOn: string;
  @DayColumn({ nullable: true }) untilOn: string | null;
  @TextColumn({ array: true, default: () => "'{}'" }) exceptOn: string[];
  @BoolColumn() skipsHolidays: boolean;
  @Refers('Pillar', 'fk_rhythm_rules_pillar')
  @IdColumn({ nullable: true })
  pillarId: string | null;
  @Refers('Format', 'fk_rhythm_rules_format')
  @IdColumn({ nullable: true })
  formatId: string | null;
  @TextColumn({ nullable: true }) purpose: Purpose | null;
  @IntColumn({ default: 1 }) version: number;
  @BoolColumn({ default: false }) fromStock: boolean;
  /** the tags with which a piece that is planned for it begins */
  @Refers('TagSet', 'fk_rhythm_rules_tag_set')
  @IdColumn({ nullable: true })
  tagSetId: string | null;
}
