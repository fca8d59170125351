import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Pieces that were begun from others. */
export class PieceReferences1768300000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      create table piece_references (
        piece_id uuid not null constraint fk_piece_references_piece references pieces,
        of_piece_id uuid not null constraint fk_piece_references_of references pieces,
        constraint pk_piece_references primary key (piece_id, of_piece_id),
        constraint ck_piece_references_other check (piece_id <> of_piece_id)
      );
      create index ix_piece_references_of on piece_references (of_piece_id)`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('drop table piece_references');
  }
}
