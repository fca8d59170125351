import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What the next prediction of load must look at: rows are only added, so that no writer waits for another, and taken out once it is stored. */
export class Wanted1764800000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      create table predictions_wanted (
        id bigint generated always as identity constraint pk_predictions_wanted primary key,
        piece_id uuid,
        person_id uuid,
        constraint ck_predictions_wanted_one check (num_nonnulls(piece_id, person_id) <= 1)
      );
      comment on table predictions_wanted is 'a piece that changed, a person who lost a step, or with neither the whole agency';
      create function want_prediction() returns trigger language plpgsql as $$
      begin
        insert into predictions_wanted (person_id) values (old.doer_id);
        return null;
      end $$;
      create trigger tr_steps_want_prediction after update of doer_id on steps for each row
        when (old.doer_id is not null and new.doer_id is distinct from old.doer_id) execute function want_prediction();
      create trigger tr_steps_gone_want_prediction after delete on steps for each row
        when (old.doer_id is not null) execute function want_prediction();
      insert into predictions_wanted default values`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      drop trigger tr_steps_want_prediction on steps;
      drop trigger tr_steps_gone_want_prediction on steps;
      drop function want_prediction;
      drop table predictions_wanted`);
  }
}
