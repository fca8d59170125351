import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Passwords set anew by mail, and what a session is known by to whom it belongs. */
export class Devices1764700000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      create table password_resets (
        id uuid not null default gen_random_uuid() constraint pk_password_resets primary key,
        person_id uuid not null constraint fk_password_resets_person references people on delete cascade,
        asked_at timestamptz not null,
        ends_at timestamptz not null,
        used_at timestamptz
      );
      create index ix_password_resets_person on password_resets (person_id, asked_at);
      alter table sessions add column seen_at timestamptz;
      create index ix_sessions_person on sessions ((sess ->> 'personId'))`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      drop table password_resets;
      drop index ix_sessions_person;
      alter table sessions drop column seen_at`);
  }
}
