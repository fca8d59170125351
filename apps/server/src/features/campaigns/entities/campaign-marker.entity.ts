import { Entity, Index, PrimaryColumn } from 'typeorm';
import { Refers } from '../../../platform/database/columns.js';

/** A date of the client that belongs to a campaign. */
@Index('ix_campaign_markers_marker', ['markerId'])
@Entity('campaign_markers')
export class CampaignMarker {
  @Refers('Campaign', 'fk_campaign_markers_campaign')
  @PrimaryColumn('uuid', { primaryKeyConstraintName: 'pk_campaign_markers' })
  campaignId: string;
  @Refers('Marker', 'fk_campaign_markers_marker', { onDelete: 'CASCADE' })
  @PrimaryColumn('uuid', { primaryKeyConstraintName: 'pk_campaign_markers' })
  markerId: string;
}
