import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A version on every step, so that two who give it away at once notice each other. */
export class Solid1764500000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`alter table steps add column version int not null default 1`);
  }

  async down(): Promise<void> {
    throw new Error('this migration is not undone: restore a backup instead');
  }
}
