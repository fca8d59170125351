import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Finding folds accents: what is looked in is kept in plain letters, since folding each row anew would cost more than the finding. */
export class Find1764400000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      create extension if not exists unaccent;
      create function plain_letters(text) returns text language sql immutable strict parallel safe
        as $$ select public.unaccent('public.unaccent'::regdictionary, lower($1)) $$;
      alter table pieces add column title_plain text generated always as (plain_letters(title)) stored;
      alter table requests add column title_plain text generated always as (plain_letters(title)) stored;
      drop index ix_pieces_title;
      drop index ix_requests_title;
      create index ix_pieces_title_plain on pieces using gin (title_plain gin_trgm_ops);
      create index ix_requests_title_plain on requests using gin (title_plain gin_trgm_ops)`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      alter table pieces drop column title_plain;
      alter table requests drop column title_plain;
      create index ix_pieces_title on pieces using gin (title gin_trgm_ops);
      create index ix_requests_title on requests using gin (title gin_trgm_ops);
      drop function plain_letters;
      drop extension unaccent`);
  }
}
