import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Hours that were worked on steps, and whether a step that was offered was taken on. */
export class Worked1768200000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      create table worked (
        id uuid constraint pk_worked primary key default gen_random_uuid(),
        client_id uuid not null constraint fk_worked_client references clients,
        piece_id uuid not null constraint fk_worked_piece references pieces,
        step_id uuid not null,
        step_title text not null,
        person_id uuid not null constraint fk_worked_person references people,
        on_day date not null,
        started_at timestamptz,
        minutes int,
        removed_at timestamptz,
        constraint ck_worked_minutes check ((minutes is null and started_at is not null) or (minutes > 0))
      );
      create unique index uq_worked_clock on worked (person_id) where minutes is null and removed_at is null;
      create index ix_worked_step on worked (step_id, on_day);
      alter table steps add accepted_on date;
      update steps set accepted_on = coalesce(started_on, assigned_on) where doer_id is not null and finished_on is null`); // nobody is asked about what they have
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('drop table worked; alter table steps drop accepted_on');
  }
}
