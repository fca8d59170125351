import type { MigrationInterface, QueryRunner } from 'typeorm';

/** How many pieces a client wants out a week and a month. */
export class PlanNumbers1766700000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('alter table client_plans add column per_week integer, add column per_month integer');
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('alter table client_plans drop column per_week, drop column per_month');
  }
}
