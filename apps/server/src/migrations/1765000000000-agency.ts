import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What an agency sets for itself: how long its people stay signed in, and whether pictures keep where they were taken. */
export class Agency1765000000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      alter table agencies
        add column version int not null default 1,
        add column session_days int not null default 14 constraint ck_agencies_session_days check (session_days between 1 and 90),
        add column keeps_places boolean not null default false,
        add constraint ck_agencies_tight_days check (tight_days between 0 and 20)`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      alter table agencies drop column version, drop column session_days, drop column keeps_places, drop constraint ck_agencies_tight_days`);
  }
}
