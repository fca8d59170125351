import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * What holds when many do much at once: a version on every step, so that two who give it away notice each other; links that can be closed;
 * which server a worker of the job queue belongs to; which clients somebody works for, kept as steps are given; and indexes for reads that
 * grow, found by EXPLAIN at 250,000 pieces.
 */
export class Solid1764500000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(COLUMNS);
    await queryRunner.query(REACH);
    await queryRunner.query(INDEXES);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(UNDO);
  }
}

const COLUMNS = `
  alter table steps add column version int not null default 1;
  alter table asset_sizes add column mime text not null default 'image/webp';
  alter table intake_forms add column link_open boolean not null default true;
  alter table contacts add column link_open boolean not null default true;
  alter table clients add column feed_open boolean not null default true;
  alter table requests add column link_generation int not null default 1, add column link_open boolean not null default true;
  create table form_uses (
    form_id uuid not null constraint fk_form_uses_form references intake_forms,
    hour timestamptz not null,
    requests int not null default 0,
    files int not null default 0,
    bytes bigint not null default 0,
    told boolean not null default false,
    constraint pk_form_uses primary key (form_id, hour)
  );
  create unlogged table job_workers (worker_id text constraint pk_job_workers primary key, instance_id uuid not null);
  update pieces set list = 'to_be_sent' where list = 'dated_not_signed'`;

/**
 * Whoever has had a step of a client's may see that client. Asked at every request, so it is kept. A row is locked before it is taken away,
 * and looked at anew after the lock: somebody may be giving the person another step of the client at that moment.
 */
const REACH = `
  create table worked_clients (
    person_id uuid not null constraint fk_worked_clients_person references people,
    client_id uuid not null constraint fk_worked_clients_client references clients,
    constraint pk_worked_clients primary key (person_id, client_id)
  );
  create function keep_worked_clients() returns trigger language plpgsql as $$
  declare
    of_client uuid;
  begin
    if tg_op <> 'INSERT' and old.doer_id is not null and (tg_op = 'DELETE' or new.doer_id is distinct from old.doer_id) then
      select client_id into of_client from pieces where id = old.piece_id;
      perform 1 from worked_clients where person_id = old.doer_id and client_id = of_client for update;
      delete from worked_clients w where w.person_id = old.doer_id and w.client_id = of_client
        and not exists (select 1 from steps s join pieces p on p.id = s.piece_id where s.doer_id = old.doer_id and p.client_id = of_client);
    end if;
    if tg_op <> 'DELETE' and new.doer_id is not null and (tg_op = 'INSERT' or new.doer_id is distinct from old.doer_id) then
      insert into worked_clients (person_id, client_id) select new.doer_id, client_id from pieces where id = new.piece_id
        on conflict (person_id, client_id) do update set client_id = excluded.client_id;
    end if;
    return null;
  end $$;
  create index ix_steps_doer_piece on steps (doer_id, piece_id) where doer_id is not null;
  insert into worked_clients (person_id, client_id)
    select distinct s.doer_id, p.client_id from steps s join pieces p on p.id = s.piece_id where s.doer_id is not null;
  create trigger tr_steps_worked_clients after insert or delete or update of doer_id on steps for each row execute function keep_worked_clients()`;

const INDEXES = `
  create index ix_assets_request on assets (request_id) where request_id is not null;
  create index ix_assets_unused on assets (created_at) where request_id is null and piece_id is null;
  create index ix_requests_requester on requests (lower(requester_email), received_at);
  create index ix_uploads_asset on uploads (asset_id);
  create index ix_decisions_contact on decisions (contact_id);
  create index ix_packet_items_version on packet_items (version_id);
  create index ix_packet_items_waiting on packet_items (packet_id) where outcome is null;
  create index ix_packets_open on packets (client_id, due_on) where closed_at is null;
  create index ix_packets_closed on packets (client_id, sent_at desc) where closed_at is not null;
  create index ix_requests_new_newest on requests (received_at desc, id desc) where state = 'new';
  create index ix_requests_decided on requests (received_at desc, id desc) where state <> 'new';
  create index ix_placements_undated on placements (client_id) where state = 'undated';
  create index ix_placements_channel on placements (channel_id);
  create index ix_steps_predicted on steps (piece_id) where predicted_start_on is not null`;

const UNDO = `
  drop index ix_assets_request, ix_assets_unused, ix_requests_requester, ix_uploads_asset, ix_decisions_contact, ix_packet_items_version,
    ix_packet_items_waiting, ix_packets_open, ix_packets_closed, ix_requests_new_newest, ix_requests_decided, ix_placements_undated, ix_placements_channel,
    ix_steps_predicted;
  drop trigger tr_steps_worked_clients on steps;
  drop index ix_steps_doer_piece;
  drop function keep_worked_clients;
  drop table worked_clients, job_workers, form_uses;
  alter table requests drop column link_generation, drop column link_open;
  alter table clients drop column feed_open;
  alter table contacts drop column link_open;
  alter table intake_forms drop column link_open;
  alter table asset_sizes drop column mime;
  alter table steps drop column version`;
