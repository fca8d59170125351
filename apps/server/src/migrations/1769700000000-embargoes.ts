import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Between which days a piece may be out; the tags with which a piece of a rule begins. */
export class Embargoes1769700000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      alter table rhythm_rules add column tag_set_id uuid constraint fk_rhythm_rules_tag_set references tag_sets;
      create table embargoes (
        piece_id uuid not null constraint pk_embargoes primary key constraint fk_embargoes_piece references pieces,
        client_id uuid not null constraint fk_embargoes_client references clients,
        not_before_on date,
        not_after_on date,
        why text not null default '',
        set_by text not null,
        set_at timestamptz not null,
        version integer not null,
        constraint ck_embargoes_order check (not_before_on <= not_after_on),
        constraint ck_embargoes_some check (num_nonnulls(not_before_on, not_after_on) > 0)
      )`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('drop table embargoes; alter table rhythm_rules drop column tag_set_id');
  }
}
