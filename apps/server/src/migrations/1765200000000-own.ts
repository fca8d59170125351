import type { MigrationInterface, QueryRunner } from 'typeorm';

/** An agency of one's own: set up on the first page, with its lists, its mark, its manners with messages, and what a new client begins with. */
export class Own1765200000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(SCHEMA);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(UNDO);
  }
}

const SCHEMA = /* sql */ `
-- until now only the demo made agencies
alter table agencies add column is_demo boolean not null default true;
alter table agencies alter column is_demo set default false;
create unique index uq_agencies_one on agencies ((true));

-- when the demo was left for good: no start loads it again
create table demo_left (
  at timestamptz not null
);

alter table agencies
  -- how visitors see the agency
  add column mark_hash text,
  add column mark_mime text,
  add column accent text constraint ck_agencies_accent check (accent ~ '^#[0-9a-f]{6}$'),
  -- whom mail comes from; null: as the installation says
  add column mail_name text,
  add column mail_address text,
  add column mail_proved_at timestamptz,
  add constraint ck_agencies_mail check ((mail_name is null) = (mail_address is null)),
  -- nothing is sent to people within these hours of theirs; the same twice: no such hours
  add column quiet_from time not null default '20:00',
  add column quiet_to time not null default '08:00',
  add column round_up text not null default 'at_once' constraint ck_agencies_round_up check (round_up in ('at_once', 'hourly', 'daily')),
  add column round_up_at time not null default '08:00',
  -- what a new client begins with
  add column default_policy jsonb not null default '{"kind":"any"}',
  add column default_form jsonb,
  add column hides_beginning boolean not null default false;

alter table formats
  add column position int not null default 0,
  add column archived_at timestamptz;
update formats f set position = n.position from (select id, row_number() over (order by name) as position from formats) n where n.id = f.id;

create table skills (
  id uuid primary key default gen_random_uuid(),
  name text not null,
  position int not null default 0,
  archived_at timestamptz
);
create unique index uq_skills_name on skills (lower(name));
insert into skills (name, position)
select name, row_number() over (order by name) from (
  select distinct on (lower(name)) name from (
    select s ->> 'skill' as name from routes, jsonb_array_elements(steps) s where s ->> 'kind' <> 'sign_off'
    union select jsonb_object_keys(skills) from people
    union select skill from steps where kind <> 'sign_off'
  ) used where name <> '' order by lower(name), name
) named;
`;

const UNDO = `
drop table skills;
alter table formats drop column position, drop column archived_at;
alter table agencies
  drop column mark_hash, drop column mark_mime, drop column accent, drop column mail_name, drop column mail_address, drop column mail_proved_at,
  drop column quiet_from, drop column quiet_to, drop column round_up, drop column round_up_at, drop column default_policy, drop column default_form,
  drop column hides_beginning;
drop table demo_left;
drop index uq_agencies_one;
alter table agencies drop column is_demo`;
