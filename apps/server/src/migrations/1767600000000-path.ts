import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The path of a piece is changed by hand: a finish is pinned, and what the route lets be left out can be left out under way, too. */
export class Path1767600000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      alter table steps add column pinned_finish_on date, add column optional boolean not null default false;
      update steps s set optional = true
        from pieces p join routes r on r.id = p.route_id cross join lateral jsonb_array_elements(r.steps) e (step)
        where p.id = s.piece_id and e.step ->> 'key' = s.key and (e.step ->> 'optional')::boolean and s.finished_on is null`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('alter table steps drop column pinned_finish_on, drop column optional');
  }
}
