import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Who usually does what for a client. */
export class ClientTeam1767800000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      create table client_team (
        client_id uuid not null constraint fk_client_team_client references clients,
        skill text not null,
        person_id uuid not null constraint fk_client_team_person references people,
        constraint pk_client_team primary key (client_id, skill)
      );
      create index ix_client_team_person on client_team (person_id)`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('drop table client_team');
  }
}
