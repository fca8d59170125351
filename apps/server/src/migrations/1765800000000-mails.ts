import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Mail that comes in is kept, and what was sent about a request is known by its Message-ID. Requests come in tables too. */
export class Mails1765800000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      create table incoming_mails (
        id uuid not null default gen_random_uuid() constraint pk_incoming_mails primary key,
        client_id uuid not null constraint fk_incoming_mails_client references clients,
        message_id text not null,
        from_name text not null,
        from_email text not null,
        subject text not null,
        text text not null,
        files jsonb not null,
        hash text not null,
        bytes integer not null,
        state text not null constraint ck_incoming_mails_state check (state in ('waiting', 'taken', 'left', 'automatic')),
        reason text constraint ck_incoming_mails_reason
          check (reason is null or reason in ('unknown_sender', 'may_not_ask', 'other_sender', 'too_many')),
        request_id uuid constraint fk_incoming_mails_request references requests,
        received_at timestamptz not null,
        constraint uq_incoming_mails_message unique (client_id, message_id)
      );
      create index ix_incoming_mails_aside on incoming_mails (state, received_at desc, id desc) where state <> 'taken';
      create index ix_incoming_mails_client on incoming_mails (client_id, received_at);
      create index ix_incoming_mails_request on incoming_mails (request_id) where request_id is not null;
      create table request_mails (
        message_id text not null,
        request_id uuid not null constraint fk_request_mails_request references requests,
        constraint pk_request_mails primary key (message_id, request_id)
      );
      create index ix_request_mails_request on request_mails (request_id);
      alter table requests drop constraint ck_requests_way,
        add constraint ck_requests_way check (way in ('form', 'mail', 'telephone', 'dates', 'table'));`);
  }

  /** Requests that came by mail or in a table stay, as taken down; the mails themselves go. */
  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      update requests set way = 'telephone' where way in ('mail', 'table');
      alter table requests drop constraint ck_requests_way,
        add constraint ck_requests_way check (way in ('form', 'telephone', 'dates'));
      drop table request_mails;
      drop table incoming_mails;`);
  }
}
