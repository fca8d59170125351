import { VIEW_PAGES, type ViewPage } from '@zesting/contract';
import { Check, Entity, Unique } from 'typeorm';
import { BoolColumn, IdColumn, IdKey, oneOf, Refers, TextColumn } from '../../../platform/database/columns.js';

/** A way of looking at a page, kept under a name. */
@Check('ck_saved_views_page', oneOf('page', VIEW_PAGES))
@Unique('uq_saved_views_name', ['personId', 'page', 'name'])
@Entity('saved_views')
export class SavedView {
  @IdKey() id: string;
  @Refers('Person', 'fk_saved_views_person')
  @IdColumn()
  personId: string;
  @TextColumn() page: ViewPage;
  @TextColumn() name: string;
  /** of the page's address */
  @TextColumn() query: string;
  @BoolColumn({ default: false }) isShared: boolean;
}
