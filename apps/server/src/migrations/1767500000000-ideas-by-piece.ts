import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What an idea became is looked for from the piece, too. */
export class IdeasByPiece1767500000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('create index ix_ideas_piece on ideas (piece_id) where piece_id is not null');
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('drop index ix_ideas_piece');
  }
}
