import { Check, Entity, Index, PrimaryColumn } from 'typeorm';
import { BigIntColumn, IdColumn, IdKey, InstantColumn, IntColumn, Refers, TextColumn } from '../../../platform/database/columns.js';

/** A file that came with a request, was put on a piece, an idea or a guideline, known by the digest of its bytes. An idea's or guideline's is of whichever client has that. */
@Check('ck_assets_of', 'num_nonnulls(client_id, idea_id, guideline_id) = 1')
@Index('ix_assets_idea', ['ideaId'], { where: 'idea_id is not null' })
@Index('ix_assets_guideline', ['guidelineId'], { where: 'guideline_id is not null' })
@Index('ix_assets_client', ['clientId'])
@Index('ix_assets_hash', ['hash'])
@Index('ix_assets_piece', ['pieceId'])
@Index('ix_assets_request', ['requestId'], { where: 'request_id is not null' })
@Index('ix_assets_unused', ['createdAt'], { where: '(request_id is null) and (piece_id is null) and (idea_id is null)' })
@Entity('assets')
export class Asset {
  @IdKey() id: string;
  @Refers('Client', 'fk_assets_client')
  @IdColumn({ nullable: true })
  clientId: string | null;
  @Refers('Idea', 'fk_assets_idea')
  @IdColumn({ nullable: true })
  ideaId: string | null;
  @Refers('Guideline', 'fk_assets_guideline')
  @IdColumn({ nullable: true })
  guidelineId: string | null;
  @Refers('Piece', 'fk_assets_piece')
  @IdColumn({ nullable: true })
  pieceId: string | null;
  @Refers('Request', 'fk_assets_request')
  @IdColumn({ nullable: true })
  requestId: string | null;
  @TextColumn() hash: string;
  @TextColumn() name: string;
  @TextColumn() mime: string;
  @BigIntColumn() bytes: number;
  @IntColumn({ nullable: true }) width: number | null;
  @IntColumn({ nullable: true }) height: number | null;
  @InstantColumn() createdAt: string;
  @IntColumn({ nullable: true }) durationMs: number | null;
}

/** A picture in a size that screens need. */
@Entity('asset_sizes')
export class AssetSize {
  @Refers('Asset', 'fk_asset_sizes_asset')
  @PrimaryColumn('uuid')
  assetId: string;
  @PrimaryColumn('integer') width: number;
  @PrimaryColumn('boolean') marked: boolean;
  @TextColumn() hash: string;
  @IntColumn() bytes: number;
  @TextColumn({ default: () => "'image/webp'" }) mime: string;
}

/** What a crop cuts out of a picture, with and without the mark; both are known by the digests of their bytes. */
@Index('ix_picture_cuts_made', ['madeHash'])
@Entity('picture_cuts')
export class PictureCut {
  @PrimaryColumn('text') hash: string;
  @PrimaryColumn('text') crop: string;
  @PrimaryColumn('boolean') marked: boolean;
  @TextColumn() madeHash: string;
  @TextColumn() mime: string;
  @IntColumn() bytes: number;
  @IntColumn() width: number;
  @IntColumn() height: number;
}
