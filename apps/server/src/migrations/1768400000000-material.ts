import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Material beside the content, and steps in which the client brings it. */
export class Material1768400000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      create table materials (
        id uuid not null default gen_random_uuid() constraint pk_materials primary key,
        piece_id uuid not null constraint fk_materials_piece references pieces,
        sort text not null constraint ck_materials_sort check (sort in ('original', 'working', 'reference', 'transcript')),
        label text not null default '',
        asset_id uuid constraint fk_materials_asset references assets,
        url text,
        text text,
        person_id uuid constraint fk_materials_person references people,
        contact_id uuid constraint fk_materials_contact references contacts,
        step_id uuid,
        added_at timestamptz not null,
        removed_at timestamptz,
        constraint ck_materials_what check (num_nonnulls(asset_id, url, text) = 1),
        constraint ck_materials_by check (num_nonnulls(person_id, contact_id) = 1)
      );
      create index ix_materials_piece on materials (piece_id, added_at);
      create index ix_materials_asset on materials (asset_id) where asset_id is not null;
      create table deliveries (
        step_id uuid not null constraint pk_deliveries primary key,
        piece_id uuid not null constraint fk_deliveries_piece references pieces,
        contact_id uuid not null constraint fk_deliveries_contact references contacts,
        words text not null,
        due_on date not null,
        asked_by uuid not null constraint fk_deliveries_person references people,
        asked_at timestamptz not null,
        times integer not null default 1,
        brought_at timestamptz,
        brought_by text,
        brought_words text not null default '',
        constraint ck_deliveries_brought check ((brought_at is null) = (brought_by is null))
      );
      create index ix_deliveries_contact on deliveries (contact_id) where brought_at is null;
      alter table steps drop constraint ck_steps_kind, drop constraint ck_steps_client_signs;
      alter table steps
        add constraint ck_steps_kind check (kind in ('make', 'check', 'deliver', 'sign_off')),
        add constraint ck_steps_client_signs check (kind not in ('deliver', 'sign_off') or doer_id is null);
      alter table pieces drop constraint ck_pieces_list;
      alter table pieces add constraint ck_pieces_list check (list in ('trouble', 'overdue', 'out_of_reach', 'changed_after_sign_off', 'returned', 'will_be_late', 'no_doer',
        'to_be_asked', 'with_client_past_due', 'to_be_sent', 'signed_undated', 'with_client', 'undated', 'on_course'))`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      alter table pieces drop constraint ck_pieces_list;
      update pieces set list = 'on_course' where list = 'to_be_asked';
      alter table pieces add constraint ck_pieces_list check (list in ('trouble', 'overdue', 'out_of_reach', 'changed_after_sign_off', 'returned', 'will_be_late', 'no_doer',
        'with_client_past_due', 'to_be_sent', 'signed_undated', 'with_client', 'undated', 'on_course'));
      update steps set kind = 'make', skill = (select name from skills order by name limit 1) where kind = 'deliver';
      alter table steps drop constraint ck_steps_kind, drop constraint ck_steps_client_signs;
      alter table steps
        add constraint ck_steps_kind check (kind in ('make', 'check', 'sign_off')),
        add constraint ck_steps_client_signs check (kind <> 'sign_off' or doer_id is null);
      drop table deliveries;
      drop table materials`);
  }
}
