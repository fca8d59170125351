import type { MigrationInterface, QueryRunner } from 'typeorm';

/** How long steps of a kind took is looked up, the latest first. */
export class StepsEnded1768100000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('create index ix_steps_ended on steps (kind, skill, finished_on) where started_on is not null');
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('drop index ix_steps_ended');
  }
}
