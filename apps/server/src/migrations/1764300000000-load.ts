import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The prediction of load: what remains of a step by its doer's word, and when it is predicted to begin and end. */
export class Load1764300000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      alter table steps
        add column remaining_minutes int constraint ck_steps_remaining check (remaining_minutes >= 0),
        add column predicted_start_on date,
        add column predicted_finish_on date,
        add column behind_steps int not null default 0`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(
      'alter table steps drop column remaining_minutes, drop column predicted_start_on, drop column predicted_finish_on, drop column behind_steps',
    );
  }
}
