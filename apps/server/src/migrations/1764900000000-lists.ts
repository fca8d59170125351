import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What lists over all clients are counted and ordered by is in their indexes: the rows themselves are read for the lines that are shown. */
export class Lists1764900000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      drop index ix_pieces_open;
      create index ix_pieces_open on pieces (client_id, list) include (id, stage, created_at, shelved, aim_on, number) where list is not null;
      create index ix_pieces_desk on pieces (list, late_from_on nulls last, slack_days nulls last, created_at, id) include (client_id) where list is not null;
      drop index ix_placements_undated;
      create index ix_placements_undated on placements (client_id) include (piece_id, created_at) where state = 'undated'`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      drop index ix_pieces_open, ix_pieces_desk, ix_placements_undated;
      create index ix_pieces_open on pieces (client_id, list) where list is not null;
      create index ix_placements_undated on placements (client_id) where state = 'undated'`);
  }
}
