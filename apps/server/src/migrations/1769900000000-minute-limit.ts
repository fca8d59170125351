import type { MigrationInterface, QueryRunner } from 'typeorm';

/** So many posts in a minute that a channel takes. */
export class MinuteLimit1769900000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      alter table channel_links add column minute_limit integer, drop constraint ck_channel_links_numbers,
        add constraint ck_channel_links_numbers check (
          coalesce(daily_limit, 1) > 0 and coalesce(minute_limit, 1) > 0 and late_minutes >= 0 and late_minutes <= 1440)`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      alter table channel_links drop constraint ck_channel_links_numbers, drop column minute_limit,
        add constraint ck_channel_links_numbers check (coalesce(daily_limit, 1) > 0 and late_minutes >= 0 and late_minutes <= 1440)`);
  }
}
