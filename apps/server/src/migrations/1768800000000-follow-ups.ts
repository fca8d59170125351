import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What is done by hand after something went out: kept per channel, and made for each placement that is out. */
export class FollowUps1768800000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      create table follow_up_lists (
        channel_id uuid not null constraint pk_follow_up_lists primary key constraint fk_follow_up_lists_channel references channels,
        client_id uuid not null constraint fk_follow_up_lists_client references clients,
        items jsonb not null,
        version integer not null default 1
      );
      create table follow_ups (
        id uuid not null default gen_random_uuid() constraint pk_follow_ups primary key,
        placement_id uuid not null constraint fk_follow_ups_placement references placements,
        client_id uuid not null constraint fk_follow_ups_client references clients,
        position integer not null,
        words text not null,
        due_on date not null,
        state text not null default 'open' constraint ck_follow_ups_state check (state in ('open', 'done', 'left_out')),
        settled_by text,
        settled_at timestamptz,
        constraint ck_follow_ups_settled check ((settled_at is null) = (state = 'open'))
      );
      create unique index uq_follow_ups_position on follow_ups (placement_id, position);
      create index ix_follow_ups_open on follow_ups (client_id, due_on) where state = 'open';
      create index ix_follow_ups_settled on follow_ups (client_id, settled_at) where settled_at is not null`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('drop table follow_ups; drop table follow_up_lists');
  }
}
