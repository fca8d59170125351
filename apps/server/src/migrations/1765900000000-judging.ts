import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What requests are judged by grows: the weight of who asks, what a client's month includes. An idea can be kept for later, an acceptance taken back. */
export class Judging1765900000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      alter table contacts add column weight integer not null default 1 constraint ck_contacts_weight check (weight >= 1 and weight <= 3);
      alter table clients add column allowance jsonb not null default '{"hours": null, "formats": []}';
      alter table requests drop constraint ck_requests_state,
        add constraint ck_requests_state check (state in ('new', 'asked_back', 'accepted', 'declined', 'idea', 'merged', 'withdrawn'));
      alter table piece_requests add column made boolean not null default false;
      update piece_requests b set made = true from requests r, pieces p where r.id = b.request_id and p.id = b.piece_id and p.created_at >= r.decided_at;`);
  }

  /** Ideas are open requests again. */
  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      alter table piece_requests drop column made;
      update requests set state = 'new', decided_at = null where state = 'idea';
      alter table requests drop constraint ck_requests_state,
        add constraint ck_requests_state check (state in ('new', 'asked_back', 'accepted', 'declined', 'merged', 'withdrawn'));
      alter table clients drop column allowance;
      alter table contacts drop column weight;`);
  }
}
