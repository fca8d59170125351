import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Spreads: what is made from each source of a kind. Spin-offs: what was made, and how it stands to its source. */
export class SpinOffs1768900000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      create table spreads (
        id uuid not null default gen_random_uuid() constraint pk_spreads primary key,
        client_id uuid not null constraint fk_spreads_client references clients,
        name text not null constraint ck_spreads_name check (name <> ''),
        format_id uuid constraint fk_spreads_format references formats,
        lines jsonb not null,
        used_since date,
        made_at timestamptz not null,
        archived_at timestamptz,
        version integer not null default 1
      );
      create index ix_spreads_client on spreads (client_id) where archived_at is null;
      create table spin_offs (
        piece_id uuid not null constraint pk_spin_offs primary key constraint fk_spin_offs_piece references pieces,
        source_id uuid not null constraint fk_spin_offs_source references pieces,
        client_id uuid not null constraint fk_spin_offs_client references clients,
        spread_id uuid not null constraint fk_spin_offs_spread references spreads,
        line_key text not null,
        name text not null,
        shape text not null constraint ck_spin_offs_shape check (shape in ('as_it_is', 'slides')),
        call_to_action text not null,
        anew text[] not null,
        guideline_id uuid constraint fk_spin_offs_guideline references guidelines,
        obstacle text not null,
        "offset" jsonb not null,
        from_second integer,
        to_second integer,
        seen jsonb not null,
        stale text[] not null,
        made_at timestamptz not null,
        constraint ck_spin_offs_other check (piece_id <> source_id),
        constraint ck_spin_offs_stretch check (((from_second is null) = (to_second is null)) and ((to_second is null) or (to_second > from_second)))
      );
      create index ix_spin_offs_client on spin_offs (client_id, made_at);
      create index ix_spin_offs_source on spin_offs (source_id);
      create index ix_spin_offs_stale on spin_offs (client_id) where cardinality(stale) > 0`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query('drop table spin_offs; drop table spreads');
  }
}
