import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Every key has a name after its table, and stages, lists, dangers and states are held to their words. */
export class Named1765400000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(KEYS);
    await queryRunner.query(CHECKS);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(UNDO);
  }
}

const UNNAMED = [
  'activities',
  'agencies',
  'asset_sizes',
  'assets',
  'channels',
  'client_closures',
  'client_people',
  'clients',
  'contacts',
  'covers',
  'decisions',
  'formats',
  'idempotency_keys',
  'intake_forms',
  'markers',
  'notices',
  'packet_items',
  'packets',
  'people',
  'pieces',
  'pillars',
  'placements',
  'presences',
  'remarks',
  'reminders',
  'requests',
  'routes',
  'sessions',
  'skills',
  'steps',
  'team_notes',
  'time_off',
  'uploads',
  'versions',
];

const KEYS = `
  ${UNNAMED.map((table) => `alter table ${table} rename constraint ${table}_pkey to pk_${table};`).join('\n')}
  alter table demo_left add constraint pk_demo_left primary key (at);
  drop index ix_pieces_number;
  drop index ix_requests_number;
  alter table pieces add constraint uq_pieces_number unique (number);
  alter table requests add constraint uq_requests_number unique (number);
  alter table idempotency_keys alter column created_at drop default`;

const DANGERS = "('overdue', 'out_of_reach', 'will_be_late', 'tight', 'fine')";
// every row was written from these words: only new ones are looked at, so that no table is locked while it is read
const CHECKS = `
  alter table pieces
    add constraint ck_pieces_stage check (stage in ('planned', 'in_production', 'in_review', 'with_client', 'approved', 'scheduled', 'published', 'shelved')) not valid,
    add constraint ck_pieces_list check (list in ('trouble', 'overdue', 'out_of_reach', 'changed_after_sign_off', 'returned', 'will_be_late', 'no_doer',
      'with_client_past_due', 'to_be_sent', 'signed_undated', 'with_client', 'undated', 'on_course')) not valid,
    add constraint ck_pieces_danger check (danger in ${DANGERS}) not valid,
    add constraint ck_pieces_round check (round >= 1) not valid;
  alter table pieces validate constraint ck_pieces_stage, validate constraint ck_pieces_list, validate constraint ck_pieces_danger, validate constraint ck_pieces_round;
  alter table steps
    add constraint ck_steps_danger check (danger in ${DANGERS}) not valid,
    add constraint ck_steps_effort check (effort_minutes >= 0) not valid;
  alter table steps validate constraint ck_steps_danger, validate constraint ck_steps_effort;
  alter table placements
    add constraint ck_placements_state check (state in ('undated', 'pencilled', 'scheduled', 'out', 'missed', 'failed', 'unsure', 'cancelled')) not valid;
  alter table placements validate constraint ck_placements_state`;

const UNDO = `
  alter table placements drop constraint ck_placements_state;
  alter table steps drop constraint ck_steps_danger, drop constraint ck_steps_effort;
  alter table pieces drop constraint ck_pieces_stage, drop constraint ck_pieces_list, drop constraint ck_pieces_danger, drop constraint ck_pieces_round;
  alter table idempotency_keys alter column created_at set default now();
  alter table pieces drop constraint uq_pieces_number;
  alter table requests drop constraint uq_requests_number;
  create index ix_pieces_number on pieces (number);
  create index ix_requests_number on requests (number);
  alter table demo_left drop constraint pk_demo_left;
  ${UNNAMED.map((table) => `alter table ${table} rename constraint pk_${table} to ${table}_pkey;`).join('\n')}`;
