import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Files that are kept for a client: product pictures with a day by which they are renewed, what pictures are begun from, and others. */
export class KeptFiles1769600000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      create table kept_files (
        id uuid not null default gen_random_uuid() constraint pk_kept_files primary key,
        client_id uuid not null constraint fk_kept_files_client references clients,
        asset_id uuid not null constraint fk_kept_files_asset references assets,
        kind text not null constraint ck_kept_files_kind check (kind in ('product', 'template', 'other')),
        title text not null constraint ck_kept_files_title check (title <> ''),
        about text not null,
        renew_by date,
        since timestamptz not null,
        archived_at timestamptz,
        version integer not null default 1
      );
      create index ix_kept_files_client on kept_files (client_id);
      create unique index uq_kept_files_asset on kept_files (asset_id);
      create table kept_file_uses (
        kept_file_id uuid not null constraint fk_kept_file_uses_file references kept_files,
        piece_id uuid not null constraint fk_kept_file_uses_piece references pieces,
        asset_id uuid not null constraint fk_kept_file_uses_asset references assets,
        used_at timestamptz not null,
        constraint pk_kept_file_uses primary key (kept_file_id, piece_id)
      );
      create index ix_kept_file_uses_piece on kept_file_uses (piece_id);
      create table renewed_files (
        client_id uuid not null constraint fk_renewed_files_client references clients,
        hash text not null,
        on_day date not null,
        constraint pk_renewed_files primary key (client_id, hash)
      )`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('drop table renewed_files; drop table kept_file_uses; drop table kept_files');
  }
}
