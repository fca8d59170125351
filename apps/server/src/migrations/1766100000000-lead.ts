import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Markers have a lead and a run-up, and there are more kinds of them. */
export class Lead1766100000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      alter table markers drop constraint ck_markers_kind,
        add constraint ck_markers_kind check (kind in ('launch', 'offer', 'email', 'live', 'event', 'conference', 'production_day', 'blackout')),
        add column lead_days integer constraint ck_markers_lead check (lead_days between 0 and 400);
      update markers set lead_days = case kind when 'launch' then 90 when 'event' then 30 when 'offer' then 30 end;
      create table run_ups (
        id uuid default gen_random_uuid() constraint pk_run_ups primary key,
        marker_id uuid not null constraint fk_run_ups_marker references markers on delete cascade,
        client_id uuid not null constraint fk_run_ups_client references clients,
        offset_days integer not null constraint ck_run_ups_offset check (offset_days between -365 and 365),
        title text not null,
        channel_id uuid not null constraint fk_run_ups_channel references channels,
        route_id uuid not null constraint fk_run_ups_route references routes,
        piece_id uuid constraint fk_run_ups_piece references pieces,
        created_at timestamptz not null
      );
      create index ix_run_ups_marker on run_ups (marker_id, offset_days);`);
  }

  /** Kinds that were not known before become events. */
  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      drop table run_ups;
      update markers set kind = 'event' where kind in ('email', 'live', 'conference');
      alter table markers drop column lead_days, drop constraint ck_markers_kind,
        add constraint ck_markers_kind check (kind in ('launch', 'offer', 'event', 'production_day', 'blackout'));`);
  }
}
