import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What a day at the agency brings: remarks as a to-do, reminders, round-ups, markers, presence, sizes of pictures, search. */
export class Day1764200000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(SCHEMA);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(UNDO);
  }
}

const SCHEMA = /* sql */ `
create extension if not exists pg_trgm;

-- decisions: the agency may decide on standing authority, or record that no answer came
alter table decisions
  alter column packet_id drop not null,
  alter column contact_id drop not null,
  add constraint ck_decisions_agency check (contact_id is not null or (recorded_by is not null and verdict = 'approve'));

-- what a contact wants changed, one thing each: settled or answered before the next round
create table remarks (
  id uuid primary key default gen_random_uuid(),
  client_id uuid not null constraint fk_remarks_client references clients,
  piece_id uuid not null constraint fk_remarks_piece references pieces,
  packet_id uuid not null constraint fk_remarks_packet references packets,
  contact_id uuid not null constraint fk_remarks_contact references contacts,
  round int not null,
  position int not null,
  text text not null,
  state text not null default 'open' constraint ck_remarks_state check (state in ('open', 'settled', 'answered')),
  answer text not null default '',
  settled_by text,
  settled_at timestamptz,
  created_at timestamptz not null,
  constraint ck_remarks_settled check ((state = 'open') = (settled_at is null)),
  constraint ck_remarks_answer check (state <> 'answered' or answer <> '')
);
create index ix_remarks_piece on remarks (piece_id, round, position);
create index ix_remarks_open on remarks (client_id) where state = 'open';

-- who was reminded of what, once per stage
create table reminders (
  thing text not null,
  thing_id uuid not null,
  receiver_id uuid not null,
  stage text not null,
  due_on date not null,
  sent_at timestamptz not null,
  primary key (thing, thing_id, receiver_id, stage, due_on)
);
alter table steps add column assigned_on date;
alter table packets add column chased_at timestamptz;

-- messages to people wait here until their round-up goes out
alter table people
  add column round_up text not null default 'at_once' constraint ck_people_round_up check (round_up in ('at_once', 'hourly', 'daily')),
  add column round_up_at time not null default '08:00';
create table notices (
  id bigint generated always as identity primary key,
  person_id uuid not null constraint fk_notices_person references people,
  client_id uuid constraint fk_notices_client references clients,
  heading text not null,
  text text not null,
  path text not null,
  -- what it is about: a later notice with the same key replaces it, an undoing takes it away
  key text,
  -- where a value moved from, so that moving it back cancels out
  moved_from text,
  moved_to text,
  due_at timestamptz not null,
  created_at timestamptz not null,
  sent_at timestamptz
);
create index ix_notices_waiting on notices (due_at) where sent_at is null;
create unique index uq_notices_key on notices (person_id, key) where sent_at is null and key is not null;

-- what stands on the calendar and is no content; without a client it is the agency's
create table markers (
  id uuid primary key default gen_random_uuid(),
  client_id uuid constraint fk_markers_client references clients,
  kind text not null constraint ck_markers_kind check (kind in ('launch', 'offer', 'event', 'production_day', 'blackout')),
  name text not null,
  start_on date not null,
  end_on date not null,
  version int not null default 1,
  constraint ck_markers_order check (start_on <= end_on)
);
create index ix_markers_client on markers (client_id, start_on);
alter table clients add column observances text[] not null default '{}';

-- a piece may go out on one channel more than once, but not at the same moment
drop index uq_placements_channel;
create unique index uq_placements_moment on placements (piece_id, channel_id, publish_at) where not cancelled and publish_at is not null;

-- who has a piece open
create unlogged table presences (
  tab_id uuid primary key,
  person_id uuid not null,
  piece_id uuid not null,
  seen_at timestamptz not null
);
create index ix_presences_piece on presences (piece_id, seen_at);

-- pictures in the sizes that screens need
create table asset_sizes (
  asset_id uuid not null constraint fk_asset_sizes_asset references assets,
  width int not null,
  marked boolean not null,
  hash text not null,
  bytes int not null,
  primary key (asset_id, width, marked)
);
alter table assets alter column bytes type bigint;

-- uploads in parts whose file was taken: asking again gives the same file
create table uploads (
  id text primary key,
  asset_id uuid not null constraint fk_uploads_asset references assets,
  taken_at timestamptz not null
);

create index ix_pieces_title on pieces using gin (title gin_trgm_ops);
create index ix_pieces_newest on pieces (created_at desc, id);
create index ix_pieces_number on pieces (number);
create index ix_requests_title on requests using gin (title gin_trgm_ops);
create index ix_requests_newest on requests (received_at desc, id);
create index ix_requests_number on requests (number);
`;

// a decision of the agency's own, and a piece that goes out twice on a channel, cannot be held as before: they stop the way back
const UNDO = `
drop index ix_pieces_title, ix_pieces_newest, ix_pieces_number, ix_requests_title, ix_requests_newest, ix_requests_number;
drop table uploads, asset_sizes, presences, markers, notices, reminders, remarks;
alter table assets alter column bytes type int;
drop index uq_placements_moment;
create unique index uq_placements_channel on placements (piece_id, channel_id) where not cancelled;
alter table clients drop column observances;
alter table people drop column round_up, drop column round_up_at;
alter table packets drop column chased_at;
alter table steps drop column assigned_on;
alter table decisions drop constraint ck_decisions_agency, alter column packet_id set not null, alter column contact_id set not null;
drop extension pg_trgm`;
