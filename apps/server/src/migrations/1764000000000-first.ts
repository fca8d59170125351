import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The first schema: agency, people, clients, intake, pieces, sign-off, calendar, and what the platform keeps. */
export class First1764000000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(SCHEMA);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(UNDO);
  }
}

const SCHEMA = /* sql */ `
create table agencies (
  id uuid primary key default gen_random_uuid(),
  name text not null,
  zone text not null,
  region text not null,
  weekly_minutes int[] not null,
  cut_off time not null default '12:00',
  tight_days int not null default 0
);

create table people (
  id uuid primary key default gen_random_uuid(),
  name text not null,
  email text not null,
  password_hash text not null,
  role text not null constraint ck_people_role check (role in ('lead', 'manager', 'staff', 'freelance')),
  zone text not null,
  region text not null,
  weekly_minutes int[] not null,
  skills jsonb not null default '{}',
  active boolean not null default true
);
create unique index uq_people_email on people (lower(email));

create table time_off (
  id uuid primary key default gen_random_uuid(),
  person_id uuid not null constraint fk_time_off_person references people,
  start_on date not null,
  end_on date not null,
  part numeric(3, 2) not null default 1,
  constraint ck_time_off_order check (start_on <= end_on),
  constraint ck_time_off_part check (part > 0 and part <= 1)
);
create index ix_time_off_person on time_off (person_id, start_on);

create table clients (
  id uuid primary key default gen_random_uuid(),
  code text not null constraint uq_clients_code unique constraint ck_clients_code check (code ~ '^[A-Z]{2,5}$'),
  name text not null,
  colour int not null constraint ck_clients_colour check (colour between 0 and 11),
  zone text not null,
  region text not null,
  weekly_minutes int[] not null,
  usual_time time not null default '09:00',
  policy jsonb not null,
  rounds_agreed int not null default 2,
  feed_generation int not null default 1,
  feed_pencilled boolean not null default true,
  chain_head text not null default repeat('0', 64)
);

create table client_closures (
  id uuid primary key default gen_random_uuid(),
  client_id uuid not null constraint fk_client_closures_client references clients,
  start_on date not null,
  end_on date not null,
  name text not null,
  constraint ck_client_closures_order check (start_on <= end_on)
);
create index ix_client_closures_client on client_closures (client_id, start_on);

create table client_people (
  client_id uuid not null constraint fk_client_people_client references clients,
  person_id uuid not null constraint fk_client_people_person references people,
  primary key (client_id, person_id)
);
create index ix_client_people_person on client_people (person_id);

create table contacts (
  id uuid primary key default gen_random_uuid(),
  client_id uuid not null constraint fk_contacts_client references clients,
  name text not null,
  email text not null,
  can_ask boolean not null default true,
  can_sign_off boolean not null default false,
  link_generation int not null default 1
);
create unique index uq_contacts_email on contacts (client_id, lower(email));

create table channels (
  id uuid primary key default gen_random_uuid(),
  client_id uuid not null constraint fk_channels_client references clients,
  kind text not null,
  name text not null,
  copy_limit int,
  ratio text not null default '1:1',
  lead_days int not null default 0,
  usual_time time,
  position int not null default 0
);
create index ix_channels_client on channels (client_id, position);

create table pillars (
  id uuid primary key default gen_random_uuid(),
  client_id uuid not null constraint fk_pillars_client references clients,
  name text not null,
  position int not null default 0
);
create index ix_pillars_client on pillars (client_id, position);

create table formats (
  id uuid primary key default gen_random_uuid(),
  name text not null constraint uq_formats_name unique
);

create table routes (
  id uuid primary key default gen_random_uuid(),
  name text not null,
  format_id uuid not null constraint fk_routes_format references formats,
  steps jsonb not null
);

create table intake_forms (
  id uuid primary key default gen_random_uuid(),
  client_id uuid not null constraint fk_intake_forms_client references clients,
  title text not null,
  intro text not null default '',
  fields jsonb not null,
  route_id uuid not null constraint fk_intake_forms_route references routes,
  link_generation int not null default 1
);
create index ix_intake_forms_client on intake_forms (client_id);

create sequence request_numbers;
create table requests (
  id uuid primary key default gen_random_uuid(),
  number int not null default nextval('request_numbers'),
  client_id uuid not null constraint fk_requests_client references clients,
  form_id uuid not null constraint fk_requests_form references intake_forms,
  fields jsonb not null,
  answers jsonb not null,
  title text not null,
  wish_on date,
  requester_name text not null,
  requester_email text not null,
  state text not null default 'new' constraint ck_requests_state check (state in ('new', 'accepted', 'declined')),
  decline_reason text,
  read_at timestamptz,
  received_at timestamptz not null,
  decided_at timestamptz,
  version int not null default 1,
  constraint ck_requests_reason check ((state = 'declined') = (decline_reason is not null))
);
create index ix_requests_list on requests (client_id, received_at desc, id);
create index ix_requests_new on requests (client_id) where state = 'new';

create sequence piece_numbers;
create table pieces (
  id uuid primary key default gen_random_uuid(),
  number int not null default nextval('piece_numbers'),
  client_id uuid not null constraint fk_pieces_client references clients,
  request_id uuid constraint fk_pieces_request references requests constraint uq_pieces_request unique,
  route_id uuid not null constraint fk_pieces_route references routes,
  format_id uuid not null constraint fk_pieces_format references formats,
  pillar_id uuid constraint fk_pieces_pillar references pillars,
  title text not null,
  notes text not null default '',
  wish_on date,
  shelved boolean not null default false,
  round int not null default 1,
  content jsonb not null,
  content_version int not null default 1,
  digests jsonb not null,
  version int not null default 1,
  created_at timestamptz not null,
  -- derived in the transaction of their cause
  stage text not null default 'planned',
  list text,
  aim_on date,
  aim_at timestamptz,
  -- the read model
  danger text,
  slack_days int,
  late_from_on date,
  earliest_publish_on date,
  packet_due_on date,
  progress jsonb not null default '[]',
  revision int not null default 0,
  planned_at timestamptz
);
create index ix_pieces_client on pieces (client_id, created_at desc, id);
create index ix_pieces_open on pieces (client_id, list) where list is not null;

create table steps (
  id uuid primary key default gen_random_uuid(),
  piece_id uuid not null constraint fk_steps_piece references pieces,
  key text not null,
  title text not null,
  kind text not null constraint ck_steps_kind check (kind in ('make', 'check', 'sign_off')),
  skill text not null,
  doer_id uuid constraint fk_steps_doer references people,
  span_days int not null constraint ck_steps_span check (span_days >= 1),
  effort_minutes int not null default 0,
  same_day boolean not null default false,
  predecessor_ids uuid[] not null default '{}',
  position int not null,
  round int not null default 1,
  started_on date,
  finished_on date,
  remark text,
  latest_start_on date,
  latest_finish_on date,
  earliest_start_on date,
  earliest_finish_on date,
  slack_days int,
  danger text,
  constraint ck_steps_client_signs check (kind <> 'sign_off' or doer_id is null),
  constraint ck_steps_finished check (finished_on is null or started_on is not null)
);
create index ix_steps_piece on steps (piece_id, position);
create index ix_steps_doer on steps (doer_id) where finished_on is null;

create table versions (
  id uuid primary key default gen_random_uuid(),
  piece_id uuid not null constraint fk_versions_piece references pieces,
  number int not null,
  content jsonb not null,
  digests jsonb not null,
  frozen_at timestamptz not null,
  frozen_by uuid constraint fk_versions_person references people,
  constraint uq_versions_number unique (piece_id, number)
);

create table packets (
  id uuid primary key default gen_random_uuid(),
  client_id uuid not null constraint fk_packets_client references clients,
  title text not null,
  message text not null default '',
  due_on date not null,
  policy jsonb not null,
  approver_ids uuid[] not null,
  sent_at timestamptz not null,
  sent_by uuid not null constraint fk_packets_person references people,
  closed_at timestamptz
);
create index ix_packets_client on packets (client_id, sent_at desc);

create table packet_items (
  packet_id uuid not null constraint fk_packet_items_packet references packets,
  piece_id uuid not null constraint fk_packet_items_piece references pieces,
  version_id uuid not null constraint fk_packet_items_version references versions,
  round int not null,
  outcome text constraint ck_packet_items_outcome check (outcome in ('approved', 'changes')),
  primary key (packet_id, piece_id)
);
create index ix_packet_items_piece on packet_items (piece_id);
create unique index uq_packet_items_open on packet_items (piece_id) where outcome is null;

create table decisions (
  id uuid primary key default gen_random_uuid(),
  client_id uuid not null constraint fk_decisions_client references clients,
  sequence int not null,
  packet_id uuid not null constraint fk_decisions_packet references packets,
  piece_id uuid not null constraint fk_decisions_piece references pieces,
  version_id uuid not null constraint fk_decisions_version references versions,
  contact_id uuid not null constraint fk_decisions_contact references contacts,
  verdict text not null constraint ck_decisions_verdict check (verdict in ('approve', 'changes')),
  digests text[] not null,
  remark text not null default '',
  decided_at timestamptz not null,
  recorded_by uuid constraint fk_decisions_recorder references people,
  how text not null default '',
  head text not null,
  constraint uq_decisions_sequence unique (client_id, sequence),
  constraint ck_decisions_remark check (verdict = 'approve' or remark <> '')
);
create index ix_decisions_piece on decisions (piece_id, sequence);

create table placements (
  id uuid primary key default gen_random_uuid(),
  piece_id uuid not null constraint fk_placements_piece references pieces,
  client_id uuid not null constraint fk_placements_client references clients,
  channel_id uuid not null constraint fk_placements_channel references channels,
  on_day date,
  at_time time,
  zone text not null,
  publish_at timestamptz,
  out_at timestamptz,
  out_address text,
  cancelled boolean not null default false,
  state text not null default 'undated',
  version int not null default 1,
  created_at timestamptz not null,
  updated_at timestamptz not null,
  constraint ck_placements_time_zone check ((on_day is null) = (publish_at is null) and (on_day is null) = (at_time is null)),
  constraint ck_placements_out check (out_at is null or on_day is not null)
);
create index ix_placements_piece on placements (piece_id);
create index ix_placements_calendar on placements (client_id, on_day);
create unique index uq_placements_channel on placements (piece_id, channel_id) where not cancelled;

create table assets (
  id uuid primary key default gen_random_uuid(),
  client_id uuid not null constraint fk_assets_client references clients,
  piece_id uuid constraint fk_assets_piece references pieces,
  request_id uuid constraint fk_assets_request references requests,
  hash text not null,
  name text not null,
  mime text not null,
  bytes int not null,
  width int,
  height int,
  created_at timestamptz not null
);
create index ix_assets_client on assets (client_id);
create index ix_assets_piece on assets (piece_id);

create table activities (
  id bigint generated always as identity primary key,
  client_id uuid constraint fk_activities_client references clients,
  thing text not null,
  thing_id uuid not null,
  verb text not null,
  actor text not null,
  detail jsonb not null default '{}',
  at timestamptz not null
);
create index ix_activities_thing on activities (thing, thing_id, id desc);

create table idempotency_keys (
  key text not null,
  caller text not null,
  operation text not null,
  request_hash text not null,
  answer jsonb,
  created_at timestamptz not null default now(),
  primary key (key, caller, operation)
);
create index ix_idempotency_keys_age on idempotency_keys (created_at);

create table sessions (
  sid varchar not null primary key,
  sess json not null,
  expire timestamp(6) not null
);
create index ix_sessions_expire on sessions (expire);
`;

const UNDO = `
drop table sessions, idempotency_keys, activities, assets, placements, decisions, packet_items, packets, versions, steps, pieces, requests, intake_forms,
  routes, formats, pillars, channels, contacts, client_people, client_closures, clients, time_off, people, agencies;
drop sequence piece_numbers;
drop sequence request_numbers`;
