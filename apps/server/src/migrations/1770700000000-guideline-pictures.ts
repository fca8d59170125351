import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Guidelines show by pictures how a thing is made: files that belong to a guideline, and so to its client or to the whole agency. */
export class GuidelinePictures1770700000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      alter table assets add column guideline_id uuid constraint fk_assets_guideline references guidelines;
      alter table assets drop constraint ck_assets_of;
      alter table assets add constraint ck_assets_of check (num_nonnulls(client_id, idea_id, guideline_id) = 1);
      create index ix_assets_guideline on assets (guideline_id) where guideline_id is not null`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      delete from uploads where asset_id in (select id from assets where guideline_id is not null);
      delete from asset_sizes where asset_id in (select id from assets where guideline_id is not null);
      delete from assets where guideline_id is not null;
      drop index ix_assets_guideline;
      alter table assets drop constraint ck_assets_of;
      alter table assets drop column guideline_id;
      alter table assets add constraint ck_assets_of check (num_nonnulls(client_id, idea_id) = 1)`);
  }
}
