import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What stands in the way of a step or a whole piece, whose it is, since when. */
export class Obstacles1767700000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      create table obstacles (
        id uuid constraint pk_obstacles primary key default gen_random_uuid(),
        client_id uuid not null constraint fk_obstacles_client references clients,
        piece_id uuid not null constraint fk_obstacles_piece references pieces,
        step_id uuid constraint fk_obstacles_step references steps on delete cascade,
        words text not null constraint ck_obstacles_words check (words <> ''),
        whose text not null constraint ck_obstacles_whose check (whose in ('person', 'client', 'outside')),
        person_id uuid constraint fk_obstacles_person references people,
        until_on date,
        raised_by uuid not null constraint fk_obstacles_raised_by references people,
        raised_at timestamptz not null,
        settled_by uuid constraint fk_obstacles_settled_by references people,
        settled_at timestamptz,
        settled_words text not null default '',
        version int not null default 1,
        constraint ck_obstacles_person check ((whose = 'person') = (person_id is not null))
      );
      create index ix_obstacles_piece on obstacles (piece_id, raised_at);
      create index ix_obstacles_open on obstacles (client_id, raised_at) where settled_at is null;
      create index ix_obstacles_step on obstacles (step_id) where step_id is not null`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('drop table obstacles');
  }
}
