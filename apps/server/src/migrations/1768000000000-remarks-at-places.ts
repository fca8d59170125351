import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Remarks at a place in the piece, by the team as well as by contacts, with replies. */
export class RemarksAtPlaces1768000000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      alter table remarks
        alter packet_id drop not null,
        alter contact_id drop not null,
        add author_id uuid constraint fk_remarks_author references people,
        add audience text not null default 'client',
        add place jsonb,
        add mention_ids uuid[] not null default '{}',
        add removed_at timestamptz,
        add constraint ck_remarks_by check (num_nonnulls(contact_id, author_id) = 1 and (contact_id is null) = (packet_id is null)),
        add constraint ck_remarks_audience check (audience in ('team', 'client') and (contact_id is null or audience = 'client'));
      drop index ix_remarks_open;
      create index ix_remarks_open on remarks (client_id) where state = 'open' and removed_at is null;
      create table remark_replies (
        id uuid constraint pk_remark_replies primary key default gen_random_uuid(),
        remark_id uuid not null constraint fk_remark_replies_remark references remarks,
        contact_id uuid constraint fk_remark_replies_contact references contacts,
        author_id uuid constraint fk_remark_replies_author references people,
        audience text not null,
        text text not null constraint ck_remark_replies_text check (text <> ''),
        mention_ids uuid[] not null default '{}',
        created_at timestamptz not null,
        removed_at timestamptz,
        constraint ck_remark_replies_by check (num_nonnulls(contact_id, author_id) = 1),
        constraint ck_remark_replies_audience check (audience in ('team', 'client') and (contact_id is null or audience = 'client'))
      );
      create index ix_remark_replies_remark on remark_replies (remark_id, created_at)`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      drop table remark_replies;
      delete from remarks where contact_id is null or removed_at is not null;
      drop index ix_remarks_open;
      alter table remarks
        drop constraint ck_remarks_by, drop constraint ck_remarks_audience,
        drop author_id, drop audience, drop place, drop mention_ids, drop removed_at,
        alter packet_id set not null,
        alter contact_id set not null;
      create index ix_remarks_open on remarks (client_id) where state = 'open'`);
  }
}
