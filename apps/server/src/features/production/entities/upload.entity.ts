import { Entity, Index, PrimaryColumn } from 'typeorm';
import { IdColumn, InstantColumn, Refers } from '../../../platform/database/columns.js';

/** An upload in parts whose file was taken: asking again gives the same file. */
@Index('ix_uploads_asset', ['assetId'])
@Entity('uploads')
export class Upload {
  @PrimaryColumn('text') id: string;
  @Refers('Asset', 'fk_uploads_asset')
  @IdColumn()
  assetId: string;
  @InstantColumn() takenAt: string;
}
