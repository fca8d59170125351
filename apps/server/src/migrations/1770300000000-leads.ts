import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Who answers for a client's pieces, and who for one of them; and the hours of a piece, found without looking through all. */
export class Leads1770300000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      create table client_leads (
        client_id uuid not null constraint pk_client_leads primary key constraint fk_client_leads_client references clients,
        person_id uuid not null constraint fk_client_leads_person references people
      );
      alter table pieces add column lead_id uuid constraint fk_pieces_lead references people;
      create index ix_pieces_lead on pieces (lead_id) where lead_id is not null;
      create index ix_worked_piece on worked (piece_id)`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('drop index ix_worked_piece; alter table pieces drop column lead_id; drop table client_leads');
  }
}
