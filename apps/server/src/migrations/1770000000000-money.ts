import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What clients pay for a month, what an hour of somebody costs, and the currency of both. */
export class Money1770000000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      alter table agencies add column currency text not null default 'EUR', add constraint ck_agencies_currency check (currency ~ '^[A-Z]{3}$');
      create table fees (
        client_id uuid not null constraint fk_fees_client references clients(id),
        agreed jsonb not null, set_by text not null, set_at timestamptz not null, version integer not null,
        constraint pk_fees primary key (client_id));
      create table rates (
        person_id uuid not null constraint fk_rates_person references people(id),
        agreed jsonb not null, set_by text not null, set_at timestamptz not null, version integer not null,
        constraint pk_rates primary key (person_id))`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      drop table rates;
      drop table fees;
      alter table agencies drop constraint ck_agencies_currency, drop column currency`);
  }
}
