import type { MigrationInterface, QueryRunner } from 'typeorm';

const LIMITS = `coalesce(copy_limit, 1) > 0 and coalesce(tag_limit, 0) >= 0 and coalesce(media_limit, 1) > 0 and coalesce(min_width, 1) > 0
  and lead_days >= 0`;

/**
 * Rules of a channel for what is seen there: shapes, lengths, weights, what its own signs cover, where it folds text. Channels that were there get what kinds
 * do with a picture (common practice) and no new limit. How long clips run, and what was cut out of pictures.
 */
export class Crops1769100000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      alter table channels
        add column other_shapes text[] not null default '{}',
        add column cuts_media boolean not null default false,
        add column clip_min_seconds integer,
        add column clip_max_seconds integer,
        add column file_limit_mb integer,
        add column safe_top integer not null default 0,
        add column safe_bottom integer not null default 0,
        add column safe_sides integer not null default 0,
        add column folds_at integer,
        drop constraint ck_channels_limits;
      alter table channels add constraint ck_channels_limits check (${LIMITS} and coalesce(clip_min_seconds, 1) > 0
        and coalesce(clip_max_seconds, 1) > 0 and coalesce(file_limit_mb, 1) > 0 and coalesce(folds_at, 1) > 0);
      update channels set cuts_media = true where kind in ('photo_feed', 'short_clip_feed', 'podcast');
      update channels set safe_top = 12, safe_bottom = 20, safe_sides = 6 where kind = 'short_clip_feed';
      update channels set folds_at = case kind when 'photo_feed' then 125 when 'short_clip_feed' then 100 when 'professional_network' then 210
        when 'video_site' then 160 when 'community_board' then 480 end;
      alter table assets add column duration_ms integer;
      create index ix_assets_hash on assets (hash);
      create table picture_cuts (
        hash text not null,
        crop text not null,
        marked boolean not null,
        made_hash text not null,
        mime text not null,
        bytes integer not null,
        width integer not null,
        height integer not null,
        constraint pk_picture_cuts primary key (hash, crop, marked)
      );
      create index ix_picture_cuts_made on picture_cuts (made_hash)`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      drop table picture_cuts;
      drop index ix_assets_hash;
      alter table assets drop column duration_ms;
      alter table channels drop constraint ck_channels_limits;
      alter table channels drop column other_shapes, drop column cuts_media, drop column clip_min_seconds, drop column clip_max_seconds,
        drop column file_limit_mb, drop column safe_top, drop column safe_bottom, drop column safe_sides, drop column folds_at;
      alter table channels add constraint ck_channels_limits check (${LIMITS})`);
  }
}
