import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Ways of looking at a page that were kept under a name. */
export class Views1766800000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      create table saved_views (
        id uuid constraint pk_saved_views primary key default gen_random_uuid(),
        person_id uuid not null constraint fk_saved_views_person references people,
        page text not null constraint ck_saved_views_page check (page in ('calendar', 'production')),
        name text not null,
        query text not null,
        is_shared boolean not null default false,
        constraint uq_saved_views_name unique (person_id, page, name)
      );`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('drop table saved_views');
  }
}
