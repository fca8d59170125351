import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Copy with headings, lists and links: whether pieces of a format are written so. What pieces have stands in their content. */
export class LaidOutCopy1770400000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('alter table formats add column is_laid_out boolean not null default false');
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('alter table formats drop column is_laid_out');
  }
}
