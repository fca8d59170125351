import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Whom a client's channels reach, as somebody guesses. */
export class Audiences1766900000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(
      "alter table client_plans add column audiences jsonb not null default '[]', add column overlap integer not null default 30",
    );
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('alter table client_plans drop column audiences, drop column overlap');
  }
}
