import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What shall be made: a client's rhythm, themes, and ideas. */
export class Plan1766000000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      create table rhythm_rules (
        id uuid default gen_random_uuid() constraint pk_rhythm_rules primary key,
        client_id uuid not null constraint fk_rhythm_rules_client references clients,
        channel_id uuid not null constraint fk_rhythm_rules_channel references channels,
        rule text not null,
        at_time time not null,
        anchor_on date not null,
        from_on date not null,
        until_on date,
        except_on text[] not null default '{}',
        skips_holidays boolean not null,
        pillar_id uuid constraint fk_rhythm_rules_pillar references pillars,
        format_id uuid constraint fk_rhythm_rules_format references formats,
        version integer not null default 1,
        constraint ck_rhythm_rules_order check (until_on is null or from_on <= until_on)
      );
      create index ix_rhythm_rules_client on rhythm_rules (client_id, until_on);
      create table themes (
        id uuid default gen_random_uuid() constraint pk_themes primary key,
        client_id uuid not null constraint fk_themes_client references clients,
        period text not null constraint ck_themes_period check (period in ('month', 'week')),
        start_on date not null,
        name text not null,
        constraint uq_themes_period unique (client_id, period, start_on)
      );
      create table client_plans (
        client_id uuid constraint pk_client_plans primary key constraint fk_client_plans_client references clients,
        cycle_names text[] not null default '{}',
        cycle_from text not null default '2000-01' constraint ck_client_plans_from check (cycle_from ~ '^\\d{4}-\\d{2}$'),
        version integer not null default 1
      );
      create table ideas (
        id uuid default gen_random_uuid() constraint pk_ideas primary key,
        client_id uuid constraint fk_ideas_client references clients,
        title text not null,
        note text not null default '',
        link text,
        pillar_id uuid constraint fk_ideas_pillar references pillars,
        format_id uuid constraint fk_ideas_format references formats,
        channel_id uuid constraint fk_ideas_channel references channels,
        merit integer,
        ease integer,
        chance integer,
        not_before_on date,
        fresh_until_on date,
        state text not null default 'open' constraint ck_ideas_state check (state in ('open', 'dropped', 'used')),
        piece_id uuid constraint fk_ideas_piece references pieces,
        author_id uuid not null constraint fk_ideas_author references people,
        created_at timestamptz not null,
        version integer not null default 1,
        title_plain text generated always as (plain_letters(title)) stored,
        constraint ck_ideas_marks check (coalesce(merit, 1) between 1 and 5 and coalesce(ease, 1) between 1 and 5 and coalesce(chance, 1) between 1 and 5),
        constraint ck_ideas_used check ((state = 'used') = (piece_id is not null))
      );
      create index ix_ideas_client on ideas (client_id, state, created_at desc, id);
      create index ix_ideas_title_plain on ideas using gin (title_plain gin_trgm_ops);
      alter table agencies
        add column idea_weights jsonb not null default '{"merit": 3, "ease": 2, "chance": 1}';`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      alter table agencies drop column idea_weights;
      drop table ideas;
      drop table client_plans;
      drop table themes;
      drop table rhythm_rules;`);
  }
}
