import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Tags that are kept under a name. */
export class TagSets1768600000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      create table tag_sets (
        id uuid not null default gen_random_uuid() constraint pk_tag_sets primary key,
        client_id uuid not null constraint fk_tag_sets_client references clients,
        name text not null constraint ck_tag_sets_name check (name <> ''),
        tags text[] not null constraint ck_tag_sets_tags check (cardinality(tags) > 0),
        pillar_id uuid constraint fk_tag_sets_pillar references pillars,
        weekday integer constraint ck_tag_sets_weekday check (weekday between 1 and 7),
        made_at timestamptz not null,
        archived_at timestamptz,
        version integer not null default 1
      );
      create index ix_tag_sets_client on tag_sets (client_id) where archived_at is null`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('drop table tag_sets');
  }
}
