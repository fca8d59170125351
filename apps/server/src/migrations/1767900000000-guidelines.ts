import type { MigrationInterface, QueryRunner } from 'typeorm';

/** How we make this kind of thing: by client, format, kind of channel and skill. */
export class Guidelines1767900000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      create table guidelines (
        id uuid constraint pk_guidelines primary key default gen_random_uuid(),
        title text not null constraint ck_guidelines_title check (title <> ''),
        text text not null constraint ck_guidelines_text check (text <> ''),
        client_id uuid constraint fk_guidelines_client references clients,
        format_id uuid constraint fk_guidelines_format references formats,
        channel_kind text,
        skill text,
        edited_by uuid not null constraint fk_guidelines_edited_by references people,
        edited_at timestamptz not null,
        archived_at timestamptz,
        version int not null default 1
      );
      create index ix_guidelines_client on guidelines (client_id) where archived_at is null`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('drop table guidelines');
  }
}
