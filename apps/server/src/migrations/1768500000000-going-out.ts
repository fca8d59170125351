import type { MigrationInterface, QueryRunner } from 'typeorm';

/** More rules of a channel, and who has looked at what goes out. A letter is at no address: nobody is asked for one. */
export class GoingOut1768500000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      alter table channels
        add column counts_tags boolean not null default false,
        add column links_work boolean not null default true,
        add column needs_media boolean not null default false,
        add column min_width integer,
        add column has_address boolean not null default true,
        add column posting_address text,
        drop constraint ck_channels_limits;
      alter table channels add constraint ck_channels_limits check (coalesce(copy_limit, 1) > 0 and coalesce(tag_limit, 0) >= 0
        and coalesce(media_limit, 1) > 0 and coalesce(min_width, 1) > 0 and lead_days >= 0);
      update channels set has_address = false where kind = 'newsletter';
      create index ix_placements_unaddressed on placements (client_id, on_day) where out_at is not null and out_address is null and not cancelled;
      create table placement_checks (
        placement_id uuid not null constraint pk_placement_checks primary key constraint fk_placement_checks_placement references placements,
        person_id uuid not null constraint fk_placement_checks_person references people,
        checked_at timestamptz not null,
        seen text not null
      )`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      drop table placement_checks;
      drop index ix_placements_unaddressed;
      alter table channels drop constraint ck_channels_limits;
      alter table channels drop column counts_tags, drop column links_work, drop column needs_media, drop column min_width,
        drop column has_address, drop column posting_address;
      alter table channels add constraint ck_channels_limits check (coalesce(copy_limit, 1) > 0 and coalesce(tag_limit, 0) >= 0
        and coalesce(media_limit, 1) > 0 and lead_days >= 0)`);
  }
}
