import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Kinds of markers of the agency's own, and days of note that come every year. */
export class KindsAndObservances1767300000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      create table marker_kinds (
        id uuid constraint pk_marker_kinds primary key default gen_random_uuid(),
        name text not null,
        position integer not null default 0,
        archived_at timestamptz
      );
      create unique index uq_marker_kinds_name on marker_kinds (lower(name));
      alter table markers add column kind_id uuid constraint fk_markers_kind references marker_kinds;
      alter table markers drop constraint ck_markers_kind;
      alter table markers add constraint ck_markers_kind check (kind in ('launch', 'offer', 'email', 'live', 'event', 'conference', 'season_busy', 'season_quiet', 'production_day', 'blackout', 'own'));
      alter table markers add constraint ck_markers_own check ((kind = 'own') = (kind_id is not null));
      create table yearly_days (
        id uuid constraint pk_yearly_days primary key default gen_random_uuid(),
        client_id uuid constraint fk_yearly_days_client references clients,
        name text not null,
        month integer not null,
        day integer not null,
        subjects text[] not null default '{}',
        constraint ck_yearly_days_date check (month between 1 and 12 and day between 1 and 31)
      );
      create unique index uq_yearly_days_name on yearly_days (coalesce(client_id::text, ''), lower(name));`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      drop table yearly_days;
      update markers set kind = 'event', kind_id = null where kind = 'own';
      alter table markers drop constraint ck_markers_own;
      alter table markers drop constraint ck_markers_kind;
      alter table markers add constraint ck_markers_kind check (kind in ('launch', 'offer', 'email', 'live', 'event', 'conference', 'season_busy', 'season_quiet', 'production_day', 'blackout'));
      alter table markers drop column kind_id;
      drop table marker_kinds;`);
  }
}
