import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A version on every step, so that two who give it away at once notice each other; the desk's lists as they are called
 * now; which server a worker of the job queue belongs to. */
export class Solid1764500000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      alter table steps add column version int not null default 1;
      alter table asset_sizes add column mime text not null default 'image/webp';
      alter table intake_forms add column link_open boolean not null default true;
      alter table contacts add column link_open boolean not null default true;
      alter table clients add column feed_open boolean not null default true;
      alter table requests add column link_generation int not null default 1, add column link_open boolean not null default true;
      create unlogged table job_workers (worker_id text constraint pk_job_workers primary key, instance_id uuid not null);
      update pieces set list = 'to_be_sent' where list = 'dated_not_signed'`);
  }

  async down(): Promise<void> {
    throw new Error('this migration is not undone: restore a backup instead');
  }
}
