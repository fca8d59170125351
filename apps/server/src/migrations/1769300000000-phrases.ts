import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Openings, closings, calls to action and templates of a client, and the pieces that they were put into. */
export class Phrases1769300000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      create table phrases (
        id uuid not null default gen_random_uuid() constraint pk_phrases primary key,
        client_id uuid not null constraint fk_phrases_client references clients,
        kind text not null constraint ck_phrases_kind check (kind in ('opening', 'closing', 'call_to_action', 'template')),
        text text not null constraint ck_phrases_text check (text <> ''),
        pillar_id uuid constraint fk_phrases_pillar references pillars,
        made_at timestamptz not null,
        archived_at timestamptz,
        version integer not null default 1
      );
      create index ix_phrases_client on phrases (client_id);
      create table phrase_uses (
        phrase_id uuid not null constraint fk_phrase_uses_phrase references phrases,
        piece_id uuid not null constraint fk_phrase_uses_piece references pieces,
        used_at timestamptz not null,
        constraint pk_phrase_uses primary key (phrase_id, piece_id)
      )`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('drop table phrase_uses; drop table phrases');
  }
}
