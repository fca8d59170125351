import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What is made together on a production day; busy and quiet seasons. */
export class ProductionDays1766200000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      create table production_days (
        marker_id uuid constraint pk_production_days primary key constraint fk_production_days_marker references markers on delete cascade,
        client_id uuid not null constraint fk_production_days_client references clients,
        capacity integer not null constraint ck_production_days_capacity check (capacity between 1 and 100),
        skill text,
        place text not null default '',
        piece_ids uuid[] not null default '{}',
        version integer not null default 1
      );
      create index ix_production_days_client on production_days (client_id);
      alter table markers drop constraint ck_markers_kind,
        add constraint ck_markers_kind check (kind in ('launch', 'offer', 'email', 'live', 'event', 'conference', 'season_busy', 'season_quiet', 'production_day', 'blackout'));`);
  }

  /** Seasons become events. */
  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      drop table production_days;
      update markers set kind = 'event' where kind in ('season_busy', 'season_quiet');
      alter table markers drop constraint ck_markers_kind,
        add constraint ck_markers_kind check (kind in ('launch', 'offer', 'email', 'live', 'event', 'conference', 'production_day', 'blackout'));`);
  }
}
