import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Requests are asked back about, merged and withdrawn; what is said about one is kept with it; how much notice an agency asks for is set. */
export class Deciding1765700000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      create table request_messages (
        id uuid not null default gen_random_uuid() constraint pk_request_messages primary key,
        request_id uuid not null constraint fk_request_messages_request references requests,
        author text not null constraint ck_request_messages_author check (author in ('agency', 'requester')),
        name text not null,
        text text not null,
        at timestamptz not null
      );
      create index ix_request_messages_request on request_messages (request_id, at, id);
      drop index ix_requests_new;
      drop index ix_requests_new_newest;
      drop index ix_requests_decided;
      alter table requests drop constraint ck_requests_state,
        add column merged_into uuid constraint fk_requests_merged_into references requests,
        add constraint ck_requests_state check (state in ('new', 'asked_back', 'accepted', 'declined', 'merged', 'withdrawn')),
        add constraint ck_requests_merged check ((state = 'merged') = (merged_into is not null));
      create index ix_requests_open on requests (client_id) where state in ('new', 'asked_back');
      create index ix_requests_open_newest on requests (received_at desc, id desc) where state in ('new', 'asked_back');
      create index ix_requests_decided on requests (received_at desc, id desc) where state not in ('new', 'asked_back');
      create index ix_requests_owner on requests (owner_id, received_at desc, id desc);
      alter table agencies add column notice_days integer not null default 30, add column launch_notice_days integer not null default 90,
        add constraint ck_agencies_notice check (notice_days >= 0 and notice_days <= 365 and launch_notice_days >= 0 and launch_notice_days <= 365);`);
  }

  /** A request that is asked back about is new again; one that was merged or withdrawn stops it. */
  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      alter table agencies drop constraint ck_agencies_notice, drop column notice_days, drop column launch_notice_days;
      drop index ix_requests_owner;
      drop index ix_requests_open;
      drop index ix_requests_open_newest;
      drop index ix_requests_decided;
      update requests set state = 'new' where state = 'asked_back';
      alter table requests drop constraint ck_requests_merged, drop column merged_into, drop constraint ck_requests_state,
        add constraint ck_requests_state check (state in ('new', 'accepted', 'declined'));
      create index ix_requests_new on requests (client_id) where state = 'new';
      create index ix_requests_new_newest on requests (received_at desc, id desc) where state = 'new';
      create index ix_requests_decided on requests (received_at desc, id desc) where state <> 'new';
      drop table request_messages;`);
  }
}
