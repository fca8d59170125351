import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Failed sign-ins in a row, by account, by address and by both; accounts as digests, since anything can be typed for one. */
export class Guard1764600000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      create table sign_in_failures (
        kind text not null constraint ck_sign_in_failures_kind check (kind in ('account', 'address', 'pair')),
        who text not null,
        failures int not null,
        last_at timestamptz not null,
        locked_until timestamptz,
        constraint pk_sign_in_failures primary key (kind, who)
      );
      create index ix_sign_in_failures_last_at on sign_in_failures (last_at)`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('drop table sign_in_failures');
  }
}
