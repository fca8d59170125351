import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * The scheme of digests is kept with what was digested by it; a request can become several pieces and a piece answer several requests;
 * what went out keeps the version and the digests that it went out with.
 */
export class Model1765500000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      alter table versions add column scheme text not null default 'zesting-part-1';
      alter table versions alter column scheme drop default;
      alter table decisions add column scheme text not null default 'zesting-part-1';
      alter table decisions alter column scheme drop default;

      create table piece_requests (
        piece_id uuid not null constraint fk_piece_requests_piece references pieces,
        request_id uuid not null constraint fk_piece_requests_request references requests,
        constraint pk_piece_requests primary key (piece_id, request_id)
      );
      create index ix_piece_requests_request on piece_requests (request_id);
      insert into piece_requests (piece_id, request_id) select id, request_id from pieces where request_id is not null;
      alter table pieces drop column request_id;

      alter table placements
        add column out_version_id uuid constraint fk_placements_out_version references versions,
        add column out_digests text[];
      -- until now what went out was signed: the newest version frozen before
      update placements l set out_version_id = v.id, out_digests = array[v.digests ->> 'shared', v.digests -> 'channels' ->> l.channel_id::text]
        from versions v where l.out_at is not null and v.piece_id = l.piece_id
          and v.number = (select max(w.number) from versions w where w.piece_id = l.piece_id and w.frozen_at <= l.out_at);
      alter table placements add constraint ck_placements_out_version check (out_version_id is null or (out_at is not null and cardinality(out_digests) = 2))`);
  }

  /** A request of several pieces, or a piece of several requests, stops it. */
  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      alter table placements drop constraint ck_placements_out_version, drop column out_version_id, drop column out_digests;
      create unique index uq_one on piece_requests (piece_id);
      alter table pieces add column request_id uuid constraint fk_pieces_request references requests constraint uq_pieces_request unique;
      update pieces p set request_id = r.request_id from piece_requests r where r.piece_id = p.id;
      drop table piece_requests;
      alter table versions drop column scheme;
      alter table decisions drop column scheme`);
  }
}
