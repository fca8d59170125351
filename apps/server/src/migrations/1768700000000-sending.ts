import type { MigrationInterface, QueryRunner } from 'typeorm';

const BEFORE = ['undated', 'pencilled', 'scheduled', 'out', 'missed', 'failed', 'unsure', 'cancelled'];
const NOW = ['undated', 'pencilled', 'scheduled', 'sending', 'out', 'missed', 'failed', 'unsure', 'cancelled'];

/** Makes it the states that a placement can have; rows are looked through without keeping anybody from writing. */
const allow = (states: readonly string[]): string => `
      alter table placements drop constraint ck_placements_state;
      alter table placements add constraint ck_placements_state check (state in (${states.map((state) => `'${state}'`).join(', ')})) not valid;
      alter table placements validate constraint ck_placements_state;`;

/** Going out by itself: how a channel is reached, each sending with what came of it, and what is stopped. */
export class Sending1768700000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`${allow(NOW)}
      create index ix_placements_due on placements (publish_at) where state = 'scheduled';
      create table channel_links (
        channel_id uuid not null constraint pk_channel_links primary key constraint fk_channel_links_channel references channels,
        client_id uuid not null constraint fk_channel_links_client references clients,
        address text,
        token text not null,
        access_ends_on date,
        audience text not null default '',
        daily_limit integer,
        late_minutes integer not null default 30,
        told_ends_on date,
        made_at timestamptz not null,
        version integer not null default 1,
        constraint ck_channel_links_numbers check (coalesce(daily_limit, 1) > 0 and late_minutes >= 0 and late_minutes <= 1440)
      );
      create index ix_channel_links_ending on channel_links (access_ends_on) where access_ends_on is not null;
      create table sendings (
        id uuid not null default gen_random_uuid() constraint pk_sendings primary key,
        placement_id uuid not null constraint fk_sendings_placement references placements,
        client_id uuid not null constraint fk_sendings_client references clients,
        channel_id uuid not null constraint fk_sendings_channel references channels,
        version_id uuid constraint fk_sendings_version references versions,
        digests text[],
        publish_at timestamptz not null,
        until_at timestamptz not null,
        reference uuid not null,
        state text not null constraint ck_sendings_state check (state in ('claimed', 'posted', 'unsure', 'out', 'failed', 'not_out')),
        tries integer not null default 0,
        asks integer not null default 0,
        code text constraint ck_sendings_code check (code in ('refused', 'limited', 'unreachable', 'stopped', 'no_answer', 'not_known', 'too_late', 'not_ready', 'said_not_out')),
        reason text,
        asked_by text,
        settled_by text,
        claimed_at timestamptz not null,
        posted_at timestamptz,
        next_at timestamptz,
        settled_at timestamptz,
        comment_state text not null constraint ck_sendings_comment_state check (comment_state in ('none', 'waiting', 'placed', 'given_up')),
        comment_tries integer not null default 0,
        constraint ck_sendings_settled check ((settled_at is null) = (state in ('claimed', 'posted', 'unsure')))
      );
      create unique index uq_sendings_open on sendings (placement_id) where settled_at is null;
      create index ix_sendings_placement on sendings (placement_id, claimed_at);
      create index ix_sendings_next on sendings (next_at) where next_at is not null;
      create index ix_sendings_channel on sendings (channel_id, posted_at) where posted_at is not null;
      create table sending_stops (
        id uuid not null default gen_random_uuid() constraint pk_sending_stops primary key,
        client_id uuid constraint fk_sending_stops_client references clients,
        channel_id uuid constraint fk_sending_stops_channel references channels,
        why text not null,
        stopped_by text not null,
        stopped_at timestamptz not null
      );
      create unique index uq_sending_stops_scope on sending_stops (client_id, channel_id) nulls not distinct`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      drop table sending_stops;
      drop table sendings;
      drop table channel_links;
      drop index ix_placements_due;
      update placements set state = 'missed' where state = 'sending';${allow(BEFORE)}`);
  }
}
