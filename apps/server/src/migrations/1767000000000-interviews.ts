import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Questions that draw knowledge from contacts and experts, and what was answered. */
export class Interviews1767000000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      create table question_sets (
        id uuid constraint pk_question_sets primary key default gen_random_uuid(),
        client_id uuid constraint fk_question_sets_client references clients,
        title text not null,
        treatment text not null default '',
        questions text[] not null,
        archived_at timestamptz,
        version integer not null default 1
      );
      create index ix_question_sets_client on question_sets (client_id);
      create table interviews (
        id uuid constraint pk_interviews primary key default gen_random_uuid(),
        client_id uuid not null constraint fk_interviews_client references clients,
        idea_id uuid constraint fk_interviews_idea references ideas,
        piece_id uuid constraint fk_interviews_piece references pieces,
        title text not null,
        contact_id uuid constraint fk_interviews_contact references contacts,
        answerer text not null default '',
        due_on date,
        asked_by uuid not null constraint fk_interviews_person references people,
        asked_at timestamptz not null,
        closed_at timestamptz,
        version integer not null default 1,
        constraint ck_interviews_about check (num_nonnulls(idea_id, piece_id) <= 1)
      );
      create index ix_interviews_client on interviews (client_id, asked_at desc, id);
      create index ix_interviews_idea on interviews (idea_id) where idea_id is not null;
      create index ix_interviews_piece on interviews (piece_id) where piece_id is not null;
      create index ix_interviews_contact on interviews (contact_id) where closed_at is null;
      create table interview_questions (
        id uuid constraint pk_interview_questions primary key default gen_random_uuid(),
        interview_id uuid not null constraint fk_interview_questions_interview references interviews,
        position integer not null,
        question text not null,
        answer text not null default '',
        answered_by text,
        answered_at timestamptz,
        version integer not null default 1,
        constraint uq_interview_questions_position unique (interview_id, position),
        constraint ck_interview_questions_answered check ((answer <> '') = (answered_by is not null) and (answer <> '') = (answered_at is not null))
      );`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('drop table interview_questions; drop table interviews; drop table question_sets');
  }
}
