import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Ideas with files, talked over, combined, and sent in by mail. */
export class IdeasTogether1767100000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      alter table ideas drop constraint ck_ideas_state;
      alter table ideas add constraint ck_ideas_state check (state in ('open', 'dropped', 'used', 'combined'));
      alter table ideas add column combined_into uuid constraint fk_ideas_combined references ideas;
      alter table ideas add constraint ck_ideas_combined check ((state = 'combined') = (combined_into is not null));
      create index ix_ideas_combined on ideas (combined_into) where combined_into is not null;
      alter table ideas alter column author_id drop not null;
      alter table ideas add column contact_id uuid constraint fk_ideas_contact references contacts;
      alter table ideas add constraint ck_ideas_caught_by check (num_nonnulls(author_id, contact_id) = 1);

      alter table assets alter column client_id drop not null;
      alter table assets add column idea_id uuid constraint fk_assets_idea references ideas;
      alter table assets add constraint ck_assets_of check (num_nonnulls(client_id, idea_id) = 1);
      create index ix_assets_idea on assets (idea_id) where idea_id is not null;
      drop index ix_assets_unused;
      create index ix_assets_unused on assets (created_at) where request_id is null and piece_id is null and idea_id is null;

      alter table team_notes alter column client_id drop not null;
      alter table team_notes alter column piece_id drop not null;
      alter table team_notes add column idea_id uuid constraint fk_team_notes_idea references ideas;
      alter table team_notes add constraint ck_team_notes_of check (num_nonnulls(piece_id, idea_id) = 1 and (piece_id is null) = (client_id is null));
      create index ix_team_notes_idea on team_notes (idea_id, created_at) where removed_at is null and idea_id is not null;

      alter table incoming_mails add column idea_id uuid constraint fk_incoming_mails_idea references ideas;`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      alter table incoming_mails drop column idea_id;
      delete from team_notes where idea_id is not null;
      drop index ix_team_notes_idea;
      alter table team_notes drop constraint ck_team_notes_of;
      alter table team_notes drop column idea_id;
      alter table team_notes alter column client_id set not null;
      alter table team_notes alter column piece_id set not null;

      delete from uploads where asset_id in (select id from assets where idea_id is not null);
      delete from asset_sizes where asset_id in (select id from assets where idea_id is not null);
      delete from assets where idea_id is not null;
      drop index ix_assets_unused;
      drop index ix_assets_idea;
      alter table assets drop constraint ck_assets_of;
      alter table assets drop column idea_id;
      alter table assets alter column client_id set not null;
      create index ix_assets_unused on assets (created_at) where request_id is null and piece_id is null;

      update ideas set state = 'dropped', combined_into = null where state = 'combined';
      delete from topic_uses where idea_id in (select id from ideas where author_id is null);
      delete from interview_questions where interview_id in (select v.id from interviews v join ideas i on i.id = v.idea_id where i.author_id is null);
      delete from interviews where idea_id in (select id from ideas where author_id is null);
      delete from ideas where author_id is null;
      alter table ideas drop constraint ck_ideas_caught_by;
      alter table ideas drop column contact_id;
      alter table ideas alter column author_id set not null;
      drop index ix_ideas_combined;
      alter table ideas drop constraint ck_ideas_combined;
      alter table ideas drop column combined_into;
      alter table ideas drop constraint ck_ideas_state;
      alter table ideas add constraint ck_ideas_state check (state in ('open', 'dropped', 'used'));`);
  }
}
