import { Entity, Index, PrimaryColumn } from 'typeorm';
import { IdColumn, Refers } from '../../../platform/database/columns.js';

/** The campaign that a piece belongs to: one at most. */
@Index('ix_campaign_pieces_campaign', ['campaignId'])
@Entity('campaign_pieces')
export class CampaignPiece {
  @Refers('Piece', 'fk_campaign_pieces_piece')
  @PrimaryColumn('uuid', { primaryKeyConstraintName: 'pk_campaign_pieces' })
  pieceId: string;
  @Refers('Campaign', 'fk_campaign_pieces_campaign')
  @IdColumn()
  campaignId: string;
}
