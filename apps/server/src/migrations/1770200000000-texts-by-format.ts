import type { MigrationInterface, QueryRunner } from 'typeorm';

/** `words_of` as the library made it, with the texts that a piece has besides its copy, or without them. */
const wordsOf = (besides: string) => `
  create or replace function words_of(language text, title text, notes text, content jsonb) returns tsvector language sql stable parallel safe as $$
    select setweight(to_tsvector(c.name, title), 'A')
      || setweight(to_tsvector(c.name, coalesce((select string_agg(t, ' ') from jsonb_path_query(content, '$.channels.*.tags[*]') p, lateral (select p #>> '{}') x (t)), '')), 'B')
      || setweight(to_tsvector(c.name, left(coalesce(content -> 'shared' ->> 'copy', '') || ' ' || ${besides}coalesce((select string_agg(t, ' ') from
          jsonb_path_query(content, '$.channels.*.copy') p, lateral (select p #>> '{}') x (t)), '') || ' ' || coalesce((select string_agg(t, ' ') from
          jsonb_path_query(content, '$.channels.*.firstComment') p, lateral (select p #>> '{}') x (t)), ''), 200000)), 'C')
      || setweight(to_tsvector(c.name, left(notes, 20000) || ' ' || coalesce((select string_agg((m ->> 'name') || ' ' || (m ->> 'alt'), ' ')
          from jsonb_path_query(content, '$.shared.media[*]') m), '')), 'D')
    from (select ('public.zesting_' || language)::regconfig as name) c
  $$`;

/** What pieces of a format have besides the copy, and the headings that copy begins from; both are found by their words. */
export class TextsByFormat1770200000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      alter table formats add column texts jsonb not null default '[]', add column outline jsonb not null default '[]',
        add column writing_version integer not null default 1`);
    await queryRunner.query(
      wordsOf("coalesce((select string_agg(t ->> 'text', ' ') from jsonb_path_query(content, '$.shared.texts[*]') t), '') || ' ' || "),
    );
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(wordsOf(''));
    await queryRunner.query('alter table formats drop column texts, drop column outline, drop column writing_version');
  }
}
