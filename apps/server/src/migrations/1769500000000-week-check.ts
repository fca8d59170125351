import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The weekday on which managers are reminded to look through what goes out next. */
export class WeekCheck1769500000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      alter table agencies add column check_weekday integer default 4
        constraint ck_agencies_check_weekday check (check_weekday is null or (check_weekday >= 1 and check_weekday <= 7))`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('alter table agencies drop column check_weekday');
  }
}
