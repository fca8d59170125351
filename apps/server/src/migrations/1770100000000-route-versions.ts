import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The steps that a route had before it was changed, and which of its states a piece goes by. */
export class RouteVersions1770100000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      create table route_versions (
        route_id uuid not null constraint fk_route_versions_route references routes(id),
        version integer not null, steps jsonb not null,
        constraint pk_route_versions primary key (route_id, version));
      insert into route_versions (route_id, version, steps) select id, version, steps from routes;
      alter table pieces add column route_version integer not null default 1;
      update pieces p set route_version = r.version from routes r where r.id = p.route_id and r.version <> 1`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('drop table route_versions; alter table pieces drop column route_version');
  }
}
