import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Goals with their readings, and strategy notes. */
export class Goals1766500000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      create table goals (
        id uuid constraint pk_goals primary key default gen_random_uuid(),
        client_id uuid not null constraint fk_goals_client references clients,
        name text not null,
        channel_id uuid constraint fk_goals_channel references channels,
        measure text not null constraint ck_goals_measure check (measure in ('pieces', 'reading')),
        unit text not null default '',
        start_value double precision not null,
        target double precision not null,
        start_on date not null,
        by_on date not null,
        pillar_ids uuid[] not null default '{}',
        steps jsonb not null default '[]',
        archived_at timestamptz,
        version integer not null default 1,
        constraint ck_goals_order check (by_on > start_on),
        constraint ck_goals_way check (target <> start_value)
      );
      create index ix_goals_client on goals (client_id, by_on);
      create table goal_readings (
        goal_id uuid not null constraint fk_goal_readings_goal references goals,
        on_day date not null,
        value double precision not null,
        constraint pk_goal_readings primary key (goal_id, on_day)
      );
      create table strategy_notes (
        id uuid constraint pk_strategy_notes primary key default gen_random_uuid(),
        client_id uuid not null constraint fk_strategy_notes_client references clients,
        kind text not null constraint ck_strategy_notes_kind check (kind in ('mission', 'works', 'works_not', 'admired')),
        text text not null,
        link text,
        author_id uuid not null constraint fk_strategy_notes_author references people,
        created_at timestamptz not null,
        archived_at timestamptz,
        version integer not null default 1
      );
      create index ix_strategy_notes_client on strategy_notes (client_id, kind, created_at);`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('drop table strategy_notes; drop table goal_readings; drop table goals');
  }
}
