import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Pieces that last and may go out again, and slots that ask for them. */
export class Evergreen1769200000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      alter table rhythm_rules add column from_stock boolean not null default false;
      create table evergreens (
        piece_id uuid not null constraint pk_evergreens primary key constraint fk_evergreens_piece references pieces,
        client_id uuid not null constraint fk_evergreens_client references clients,
        rest_days integer not null,
        times_most integer,
        until_on date,
        marked_by text not null,
        marked_at timestamptz not null,
        version integer not null,
        constraint ck_evergreens_rest check (rest_days >= 1 and coalesce(times_most, 1) >= 1)
      );
      create index ix_evergreens_client on evergreens (client_id)`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('drop table evergreens; alter table rhythm_rules drop column from_stock');
  }
}
