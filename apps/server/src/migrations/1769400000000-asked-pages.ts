import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What the pages answered to which links lead. */
export class AskedPages1769400000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      create table asked_pages (
        address text not null constraint pk_asked_pages primary key,
        status integer constraint ck_asked_pages_status check (status is null or (status >= 100 and status <= 599)),
        asked_at timestamptz,
        next_at timestamptz,
        wanted_until timestamptz not null
      );
      create index ix_asked_pages_next on asked_pages (next_at) where next_at is not null`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('drop table asked_pages');
  }
}
