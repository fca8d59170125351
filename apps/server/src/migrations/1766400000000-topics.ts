import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Topics and subtopics of pillars, the ways to treat them, and what was made of them. */
export class Topics1766400000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      create table topics (
        id uuid constraint pk_topics primary key default gen_random_uuid(),
        client_id uuid not null constraint fk_topics_client references clients,
        pillar_id uuid not null constraint fk_topics_pillar references pillars,
        parent_id uuid constraint fk_topics_parent references topics,
        name text not null,
        position integer not null default 0,
        months text[] not null default '{}',
        archived_at timestamptz,
        version integer not null default 1
      );
      create index ix_topics_client on topics (client_id, pillar_id, position);
      create unique index uq_topics_name on topics (pillar_id, coalesce(parent_id, pillar_id), plain_letters(name)) where archived_at is null;
      create table topic_uses (
        id uuid constraint pk_topic_uses primary key default gen_random_uuid(),
        client_id uuid not null constraint fk_topic_uses_client references clients,
        topic_id uuid not null constraint fk_topic_uses_topic references topics,
        treatment text not null default '',
        idea_id uuid constraint fk_topic_uses_idea references ideas,
        piece_id uuid constraint fk_topic_uses_piece references pieces,
        constraint uq_topic_uses_idea unique (idea_id),
        constraint uq_topic_uses_piece unique (piece_id),
        constraint ck_topic_uses_one check (num_nonnulls(idea_id, piece_id) = 1)
      );
      create index ix_topic_uses_client on topic_uses (client_id, topic_id);
      create table treatments (
        client_id uuid constraint pk_treatments primary key constraint fk_treatments_client references clients,
        names text[] not null default '{}',
        version integer not null default 1
      );`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('drop table treatments; drop table topic_uses; drop table topics');
  }
}
