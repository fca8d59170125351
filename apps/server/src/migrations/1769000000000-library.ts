import type { MigrationInterface, QueryRunner } from 'typeorm';

/** PostgreSQL's own stemmers, by language; accents are folded before them. */
const STEMMERS = {
  da: 'danish',
  de: 'german',
  en: 'english',
  es: 'spanish',
  fi: 'finnish',
  fr: 'french',
  it: 'italian',
  nl: 'dutch',
  no: 'norwegian',
  pt: 'portuguese',
  sv: 'swedish',
} as const;

/** Pieces are found by what they say: in the language of their client, with accents folded. */
export class Library1769000000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    const languages = Object.entries(STEMMERS);
    await queryRunner.query(`
      alter table clients add column language text not null default 'en'
        constraint ck_clients_language check (language in (${languages.map(([code]) => `'${code}'`).join(', ')}))`);
    for (const [code, stemmer] of languages)
      await queryRunner.query(`
        create text search configuration public.zesting_${code} (copy = pg_catalog.${stemmer});
        alter text search configuration public.zesting_${code}
          alter mapping for hword, hword_part, word with public.unaccent, pg_catalog.${stemmer}_stem`);
    await queryRunner.query(`
      create function words_of(language text, title text, notes text, content jsonb) returns tsvector language sql stable parallel safe as $$
        select setweight(to_tsvector(c.name, title), 'A')
          || setweight(to_tsvector(c.name, coalesce((select string_agg(t, ' ') from jsonb_path_query(content, '$.channels.*.tags[*]') p, lateral (select p #>> '{}') x (t)), '')), 'B')
          || setweight(to_tsvector(c.name, left(coalesce(content -> 'shared' ->> 'copy', '') || ' ' || coalesce((select string_agg(t, ' ') from
              jsonb_path_query(content, '$.channels.*.copy') p, lateral (select p #>> '{}') x (t)), '') || ' ' || coalesce((select string_agg(t, ' ') from
              jsonb_path_query(content, '$.channels.*.firstComment') p, lateral (select p #>> '{}') x (t)), ''), 200000)), 'C')
          || setweight(to_tsvector(c.name, left(notes, 20000) || ' ' || coalesce((select string_agg((m ->> 'name') || ' ' || (m ->> 'alt'), ' ')
              from jsonb_path_query(content, '$.shared.media[*]') m), '')), 'D')
        from (select ('public.zesting_' || language)::regconfig as name) c
      $$;
      create table piece_words (
        piece_id uuid not null constraint pk_piece_words primary key constraint fk_piece_words_piece references pieces,
        client_id uuid not null constraint fk_piece_words_client references clients,
        language text not null,
        made_at timestamptz not null,
        words tsvector not null
      );
      insert into piece_words select p.id, p.client_id, c.language, p.created_at, words_of(c.language, p.title, p.notes, p.content)
        from pieces p join clients c on c.id = p.client_id;
      create index ix_piece_words_made on piece_words (made_at, piece_id);
      create index ix_piece_words_client on piece_words (client_id, made_at, piece_id);
      create index ix_piece_words on piece_words using gin (words)`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('drop table piece_words; drop function words_of; alter table clients drop column language');
    for (const code of Object.keys(STEMMERS)) await queryRunner.query(`drop text search configuration public.zesting_${code}`);
  }
}
