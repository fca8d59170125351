import { MATERIAL_SORTS, type MaterialSort } from '@zesting/core';
import { Check, Entity, Index } from 'typeorm';
import { IdColumn, IdKey, InstantColumn, oneOf, Refers, TextColumn } from '../../../platform/database/columns.js';

/** What makers work from, beside the content: it never goes out. A file, an address or words; from one of the team or from a contact. */
@Check('ck_materials_what', 'num_nonnulls(asset_id, url, text) = 1')
@Check('ck_materials_by', 'num_nonnulls(person_id, contact_id) = 1')
@Check('ck_materials_sort', oneOf('sort', MATERIAL_SORTS))
@Index('ix_materials_piece', ['pieceId', 'addedAt'])
@Index('ix_materials_asset', ['assetId'], { where: 'asset_id is not null' })
@Entity('materials')
export class Material {
  @IdKey() id: string;
  @Refers('Piece', 'fk_materials_piece')
  @IdColumn()
  pieceId: string;
  @TextColumn() sort: MaterialSort;
  @TextColumn({ default: () => "''" }) label: string;
  @Refers('Asset', 'fk_materials_asset')
  @IdColumn({ nullable: true })
  assetId: string | null;
  @TextColumn({ nullable: true }) url: string | null;
  @TextColumn({ nullable: true }) text: string | null;
  @Refers('Person', 'fk_materials_person')
  @IdColumn({ nullable: true })
  personId: string | null;
  @Refers('Contact', 'fk_materials_contact')
  @IdColumn({ nullable: true })
  contactId: string | null;
  /** the step for which a contact brought it; it may be gone from the path since */
  @IdColumn({ nullable: true }) stepId: string | null;
  @InstantColumn() addedAt: string;
  /** taken away: kept, and shown to nobody */
  @InstantColumn({ nullable: true }) removedAt: string | null;
}
