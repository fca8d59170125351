import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * What is done around a placement: before it goes out it is put into its channel, afterwards it is followed up, each by somebody in particular and with
 * the minutes that it takes. What is to be put in follows from the placement's day; it is stored once something was said of it, for the time and the
 * content that it was said for.
 */
export class PlacementWork1770500000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      update follow_up_lists l set items = (
        select coalesce(jsonb_agg(jsonb_build_object('key', gen_random_uuid(), 'kind', 'follow_up', 'words', i.item -> 'words', 'days', i.item -> 'daysAfter',
          'forDays', 1, 'personId', null, 'minutes', 0) order by i.position), '[]')
        from jsonb_array_elements(l.items) with ordinality as i (item, position));
      alter table follow_ups add column kind text not null default 'follow_up' constraint ck_follow_ups_kind check (kind in ('enter', 'follow_up')),
        add column item_key uuid not null default gen_random_uuid(),
        add column person_id uuid constraint fk_follow_ups_person references people,
        add column minutes integer not null default 0,
        add column meant_at timestamptz,
        add column digests text[],
        add constraint ck_follow_ups_meant check ((kind = 'enter') = (meant_at is not null and digests is not null));
      alter table follow_ups alter column kind drop default, alter column item_key drop default;
      drop index uq_follow_ups_position;
      create unique index uq_follow_ups_followed on follow_ups (placement_id, item_key, due_on) where kind = 'follow_up';
      create unique index uq_follow_ups_entered on follow_ups (placement_id, item_key, meant_at, digests) where kind = 'enter';
      create index ix_follow_ups_doer on follow_ups (person_id, due_on) where (state = 'open') and (person_id is not null);
      create function want_prediction_of_entering() returns trigger language plpgsql as $$
      begin
        insert into predictions_wanted (person_id)
          select distinct (i.item ->> 'personId')::uuid from follow_up_lists l cross join lateral jsonb_array_elements(l.items) as i (item)
          where l.channel_id = new.channel_id and i.item ->> 'kind' = 'enter' and i.item ->> 'personId' is not null;
        return null;
      end $$;
      create trigger tr_placements_want_prediction after insert on placements for each row
        when (new.on_day is not null) execute function want_prediction_of_entering();
      create trigger tr_placements_moved_want_prediction after update of on_day, at_time, state, cancelled on placements for each row
        when ((old.on_day, old.at_time, old.state, old.cancelled) is distinct from (new.on_day, new.at_time, new.state, new.cancelled))
        execute function want_prediction_of_entering()`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      drop trigger tr_placements_want_prediction on placements;
      drop trigger tr_placements_moved_want_prediction on placements;
      drop function want_prediction_of_entering;
      drop index uq_follow_ups_followed;
      drop index uq_follow_ups_entered;
      drop index ix_follow_ups_doer;
      delete from follow_ups where kind = 'enter';
      update follow_ups f set position = n.turn from
        (select id, (row_number() over (partition by placement_id order by position, due_on, id) - 1)::int as turn from follow_ups) n where n.id = f.id;
      alter table follow_ups drop column kind, drop column item_key, drop column person_id, drop column minutes, drop column meant_at, drop column digests;
      create unique index uq_follow_ups_position on follow_ups (placement_id, position);
      update follow_up_lists l set items = (
        select coalesce(jsonb_agg(jsonb_build_object('words', i.item -> 'words', 'daysAfter', i.item -> 'days') order by i.position), '[]')
        from jsonb_array_elements(l.items) with ordinality as i (item, position) where i.item ->> 'kind' = 'follow_up')`);
  }
}
