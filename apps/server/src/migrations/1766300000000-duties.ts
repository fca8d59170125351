import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Work that is no step of a piece, and pieces that come again. */
export class Duties1766300000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      create table duties (
        id uuid constraint pk_duties primary key default gen_random_uuid(),
        client_id uuid constraint fk_duties_client references clients,
        title text not null,
        remark text not null default '',
        checklist text[] not null default '{}',
        rule text,
        anchor_on date not null,
        from_on date not null,
        until_on date,
        lead_days integer not null default 0 constraint ck_duties_lead_days check (lead_days between 0 and 180),
        lead_id uuid not null constraint fk_duties_lead references people,
        second_id uuid constraint fk_duties_second references people,
        minutes integer not null default 0 constraint ck_duties_minutes check (minutes between 0 and 2400),
        route_id uuid constraint fk_duties_route references routes,
        channel_ids uuid[] not null default '{}',
        pillar_id uuid constraint fk_duties_pillar references pillars,
        version integer not null default 1,
        constraint ck_duties_piece check (route_id is null or client_id is not null),
        constraint ck_duties_order check (until_on is null or until_on >= from_on)
      );
      create index ix_duties_client on duties (client_id);
      create index ix_duties_lead on duties (lead_id);
      create index ix_duties_second on duties (second_id);
      create table duty_marks (
        duty_id uuid not null constraint fk_duty_marks_duty references duties on delete cascade,
        on_day date not null,
        mark text not null constraint ck_duty_marks_mark check (mark in ('open', 'done', 'left_out', 'made', 'missed')),
        ticks integer[] not null default '{}',
        person_id uuid constraint fk_duty_marks_person references people,
        piece_id uuid constraint fk_duty_marks_piece references pieces,
        at timestamptz not null,
        constraint pk_duty_marks primary key (duty_id, on_day),
        constraint ck_duty_marks_made check ((mark = 'made') = (piece_id is not null))
      );`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('drop table duty_marks; drop table duties');
  }
}
