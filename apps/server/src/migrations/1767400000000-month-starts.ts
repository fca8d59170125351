import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Months of clients that somebody has begun to plan. */
export class MonthStarts1767400000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      create table month_starts (
        client_id uuid not null constraint fk_month_starts_client references clients,
        month text not null,
        person_id uuid not null constraint fk_month_starts_person references people,
        at timestamptz not null,
        constraint pk_month_starts primary key (client_id, month)
      );`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('drop table month_starts');
  }
}
