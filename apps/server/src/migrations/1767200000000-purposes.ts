import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What pieces ask of people, and pillars with colours of their own. */
export class Purposes1767200000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      alter table pieces add column purpose text;
      alter table pieces add constraint ck_pieces_purpose check (purpose in ('know', 'react', 'come', 'buy'));
      alter table rhythm_rules add column purpose text;
      alter table rhythm_rules add constraint ck_rhythm_rules_purpose check (purpose in ('know', 'react', 'come', 'buy'));
      alter table pillars add column colour integer;
      alter table pillars add constraint ck_pillars_colour check (colour between 0 and 11);
      -- as they were drawn until now
      update pillars p set colour = (c.colour + o.place * 5) % 12 from clients c,
        (select id, row_number() over (partition by client_id order by archived_at is not null, position, name) - 1 as place from pillars) o
      where c.id = p.client_id and o.id = p.id;
      alter table pillars alter column colour set default 0;
      alter table pillars alter column colour set not null;`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      alter table pillars drop column colour;
      alter table rhythm_rules drop column purpose;
      alter table pieces drop column purpose;`);
  }
}
