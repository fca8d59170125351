import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Production in the order of the days that pieces aim at. */
export class Production1765100000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query("create index ix_pieces_aim on pieces ((coalesce(aim_on, 'infinity'::date)), id)");
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('drop index ix_pieces_aim');
  }
}
