import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Campaigns, with the pieces and dates that belong to them. */
export class Campaigns1766600000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      create table campaigns (
        id uuid constraint pk_campaigns primary key default gen_random_uuid(),
        client_id uuid not null constraint fk_campaigns_client references clients,
        name text not null,
        aim text not null default '',
        from_on date not null,
        to_on date not null,
        channel_ids uuid[] not null default '{}',
        archived_at timestamptz,
        version integer not null default 1,
        constraint ck_campaigns_order check (to_on >= from_on)
      );
      create index ix_campaigns_client on campaigns (client_id, from_on);
      create table campaign_pieces (
        piece_id uuid constraint pk_campaign_pieces primary key constraint fk_campaign_pieces_piece references pieces,
        campaign_id uuid not null constraint fk_campaign_pieces_campaign references campaigns
      );
      create index ix_campaign_pieces_campaign on campaign_pieces (campaign_id);
      create table campaign_markers (
        campaign_id uuid not null constraint fk_campaign_markers_campaign references campaigns,
        marker_id uuid not null constraint fk_campaign_markers_marker references markers on delete cascade,
        constraint pk_campaign_markers primary key (campaign_id, marker_id)
      );
      create index ix_campaign_markers_marker on campaign_markers (marker_id);`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('drop table campaign_markers; drop table campaign_pieces; drop table campaigns');
  }
}
