import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Clients, people and routes as screens edit them: what is archived, brand sheets, limits, invitations, cover, leaving. */
export class Setup1764100000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(SCHEMA);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(UNDO);
  }
}

const SCHEMA = /* sql */ `
alter table clients
  add column brand jsonb not null default '{"voice":"","palette":[],"logos":[],"wordsToUse":[],"wordsNever":[],"disclosure":""}',
  add column archived_at timestamptz,
  add column version int not null default 1;

alter table contacts
  add column can_view boolean not null default true,
  add column position int not null default 0,
  add column archived_at timestamptz;
drop index uq_contacts_email;
create unique index uq_contacts_email on contacts (client_id, lower(email)) where archived_at is null;

alter table channels
  add column tag_limit int,
  add column media_limit int,
  add column archived_at timestamptz,
  add constraint ck_channels_limits check (coalesce(copy_limit, 1) > 0 and coalesce(tag_limit, 0) >= 0 and coalesce(media_limit, 1) > 0 and lead_days >= 0);

alter table pillars
  add column share int not null default 0 constraint ck_pillars_share check (share between 0 and 100),
  add column archived_at timestamptz;

alter table people
  alter column password_hash drop not null,
  add column link_generation int not null default 1,
  add column left_at timestamptz,
  add column version int not null default 1,
  add constraint ck_people_left check (active = (left_at is null));

alter table time_off
  add column note text not null default '',
  add column source_uid text;

alter table client_people
  add column relation text not null default 'own' constraint ck_client_people_relation check (relation in ('own', 'barred'));

create table covers (
  id uuid primary key default gen_random_uuid(),
  manager_id uuid not null constraint fk_covers_manager references people,
  cover_id uuid not null constraint fk_covers_cover references people,
  start_on date not null,
  end_on date not null,
  constraint ck_covers_order check (start_on <= end_on),
  constraint ck_covers_two check (manager_id <> cover_id)
);
create index ix_covers_manager on covers (manager_id, start_on);
create index ix_covers_cover on covers (cover_id, start_on);

alter table routes
  add column rounds_allowed int constraint ck_routes_rounds check (rounds_allowed between 1 and 9),
  add column archived_at timestamptz,
  add column version int not null default 1;

create index ix_activities_client on activities (client_id, id desc);
`;

const UNDO = `
drop index ix_activities_client;
alter table routes drop column rounds_allowed, drop column archived_at, drop column version;
drop table covers;
alter table client_people drop column relation;
alter table time_off drop column note, drop column source_uid;
alter table people drop column link_generation, drop column left_at, drop column version;
update people set password_hash = '' where password_hash is null;
alter table people alter column password_hash set not null;
alter table pillars drop column share, drop column archived_at;
alter table channels drop column tag_limit, drop column media_limit, drop column archived_at;
alter table contacts drop column can_view, drop column position, drop column archived_at;
create unique index uq_contacts_email on contacts (client_id, lower(email));
alter table clients drop column brand, drop column archived_at, drop column version`;
