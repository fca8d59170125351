import { KEPT_FILE_KINDS, type KeptFileKind } from '@zesting/core';
import { Check, Entity, Index, PrimaryColumn, VersionColumn } from 'typeorm';
import { DayColumn, IdColumn, IdKey, InstantColumn, oneOf, Refers, TextColumn } from '../../../platform/database/columns.js';

/** A file that is kept for a client, to be taken into pieces. */
@Check('ck_kept_files_kind', oneOf('kind', KEPT_FILE_KINDS))
@Check('ck_kept_files_title', "title <> ''")
@Index('ix_kept_files_client', ['clientId'])
@Index('uq_kept_files_asset', ['assetId'], { unique: true })
@Entity('kept_files')
export class KeptFile {
  @IdKey() id: string;
  @Refers('Client', 'fk_kept_files_client')
  @IdColumn()
  clientId: string;
  @Refers('Asset', 'fk_kept_files_asset')
  @IdColumn()
  assetId: string;
  @TextColumn() kind: KeptFileKind;
  @TextColumn() title: string;
  @TextColumn() about: string;
  @DayColumn({ nullable: true }) renewBy: string | null;
  @InstantColumn() since: string;
  @InstantColumn({ nullable: true }) archivedAt: string | null;
  @VersionColumn({ default: 1 }) version: number;
}

/** That a kept file was taken into a piece, and as which file of it; once more is the same use, at a later time. */
@Index('ix_kept_file_uses_piece', ['pieceId'])
@Entity('kept_file_uses')
export class KeptFileUse {
  @Refers('KeptFile', 'fk_kept_file_uses_file')
  @PrimaryColumn('uuid')
  keptFileId: string;
  @Refers('Piece', 'fk_kept_file_uses_piece')
  @PrimaryColumn('uuid')
  pieceId: string;
  @Refers('Asset', 'fk_kept_file_uses_asset')
  @IdColumn()
  assetId: string;
  @InstantColumn() usedAt: string;
}

/** What a kept file was before something newer took its place: what shows those bytes is old from that day on. */
@Entity('renewed_files')
export class RenewedFile {
  @Refers('Client', 'fk_renewed_files_client')
  @PrimaryColumn('uuid')
  clientId: string;
  @PrimaryColumn('text') hash: string;
  @DayColumn() onDay: string;
}
