import { THEME_PERIODS, type ThemePeriod } from '@zesting/core';
import { Check, Entity, Unique } from 'typeorm';
import { DayColumn, IdColumn, IdKey, oneOf, Refers, TextColumn } from '../../../platform/database/columns.js';

/** The theme of a client's month or week. */
@Check('ck_themes_period', oneOf('period', THEME_PERIODS))
@Unique('uq_themes_period', ['clientId', 'period', 'startOn'])
@Entity('themes')
export class StoredTheme {
  @IdKey() id: string;
  @Refers('Client', 'fk_themes_client')
  @IdColumn()
  clientId: string;
  @TextColumn() period: ThemePeriod;
  @DayColumn() startOn: string;
  @TextColumn() name: string;
}
