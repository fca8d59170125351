import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Checklists of steps, and who ticked what. */
export class Checklists1769800000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      alter table steps add column checklist text[] not null default '{}';
      create table step_ticks (
        step_id uuid not null constraint fk_step_ticks_step references steps,
        position integer not null,
        person_id uuid not null constraint fk_step_ticks_person references people,
        at timestamptz not null,
        constraint pk_step_ticks primary key (step_id, position)
      )`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('drop table step_ticks; alter table steps drop column checklist');
  }
}
