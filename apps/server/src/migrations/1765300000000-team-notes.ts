import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What the team adds to a brief, and its talk about a piece. */
export class TeamNotes1765300000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      create table team_notes (
        id uuid primary key default gen_random_uuid(),
        client_id uuid not null constraint fk_team_notes_client references clients,
        piece_id uuid not null constraint fk_team_notes_piece references pieces,
        author_id uuid not null constraint fk_team_notes_author references people,
        kind text not null constraint ck_team_notes_kind check (kind in ('brief', 'comment')),
        text text not null constraint ck_team_notes_text check (text <> ''),
        asset_ids uuid[] not null default '{}',
        mention_ids uuid[] not null default '{}',
        created_at timestamptz not null,
        edited_at timestamptz,
        removed_at timestamptz,
        version int not null default 1
      );
      create index ix_team_notes_piece on team_notes (piece_id, created_at) where removed_at is null`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('drop table team_notes');
  }
}
