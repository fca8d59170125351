import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * Forms get versions, links of their own and clients that share them; requests come by other ways than a form too. What was handed out stays
 * valid: a form's one link becomes a row with the same id and generation.
 */
export class Forms1765600000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      create function pg_temp.new_items(fields jsonb) returns jsonb language sql as $$
        select coalesce(jsonb_agg((f - 'required' - 'options' - 'kind')
          || jsonb_build_object('kind', case f ->> 'kind' when 'choice' then 'one_of' when 'date' then 'day' else f ->> 'kind' end)
          || case when f ? 'required' then jsonb_build_object('needed', f -> 'required') else '{}' end
          || case when f ? 'options' then jsonb_build_object('options',
               (select jsonb_agg(jsonb_build_object('value', o.value) order by o.at) from jsonb_array_elements_text(f -> 'options') with ordinality o (value, at)))
             else '{}' end order by t.at), '[]')
        from jsonb_array_elements(fields) with ordinality t (f, at) $$;
      create function pg_temp.new_content(title text, intro text, fields jsonb, route uuid) returns jsonb language sql as $$
        select jsonb_build_object('title', title, 'intro', intro, 'language', 'en', 'items', pg_temp.new_items(fields), 'routeId', route, 'rules', '[]'::jsonb,
          'thanks', '', 'opensOn', null, 'closesOn', null, 'noticeDays', 0, 'answerDays', 0) $$;

      create table form_versions (
        form_id uuid not null constraint fk_form_versions_form references intake_forms,
        number integer not null,
        content jsonb not null,
        published_at timestamptz not null,
        published_by text not null,
        constraint pk_form_versions primary key (form_id, number)
      );
      create table form_clients (
        form_id uuid not null constraint fk_form_clients_form references intake_forms,
        client_id uuid not null constraint fk_form_clients_client references clients,
        constraint pk_form_clients primary key (form_id, client_id)
      );
      create index ix_form_clients_client on form_clients (client_id);
      create table form_links (
        id uuid not null default gen_random_uuid() constraint pk_form_links primary key,
        form_id uuid not null constraint fk_form_links_form references intake_forms,
        client_id uuid not null constraint fk_form_links_client references clients,
        label text not null,
        origins jsonb not null default '[]',
        requests integer not null default 0,
        link_generation integer not null default 1,
        link_open boolean not null default true,
        made_at timestamptz not null
      );
      create index ix_form_links_form on form_links (form_id);
      create index ix_form_links_client on form_links (client_id);

      insert into form_versions (form_id, number, content, published_at, published_by)
        select f.id, 1, pg_temp.new_content(f.title, f.intro, f.fields, f.route_id),
          coalesce((select min(r.received_at) from requests r where r.form_id = f.id), '2026-01-01T00:00:00Z'), a.name
        from intake_forms f cross join agencies a;
      insert into form_clients (form_id, client_id) select id, client_id from intake_forms;
      insert into form_links (id, form_id, client_id, label, requests, link_generation, link_open, made_at)
        select f.id, f.id, f.client_id, f.title, (select count(*) from requests r where r.form_id = f.id), f.link_generation, f.link_open, v.published_at
        from intake_forms f join form_versions v on v.form_id = f.id;

      alter table intake_forms add column draft jsonb, add column published_version integer, add column archived_at timestamptz,
        add column version integer not null default 1;
      update intake_forms set published_version = 1;
      alter table intake_forms add constraint ck_intake_forms_something check (draft is not null or published_version is not null),
        drop column client_id, drop column intro, drop column fields, drop column route_id, drop column link_generation, drop column link_open;
      create index ix_intake_forms_title on intake_forms (title, id);

      alter table form_uses drop constraint fk_form_uses_form;
      alter table form_uses rename column form_id to link_id;
      alter table form_uses add constraint fk_form_uses_link foreign key (link_id) references form_links;

      alter table requests
        add column way text not null default 'form',
        add column form_version integer,
        add column link_id uuid constraint fk_requests_link references form_links,
        add column contact_id uuid constraint fk_requests_contact references contacts,
        add column owner_id uuid constraint fk_requests_owner references people,
        add column takes jsonb not null default '{}',
        alter column form_id drop not null,
        alter column requester_email drop not null;
      alter table requests rename column fields to items;
      update requests r set form_version = 1, link_id = r.form_id, items = pg_temp.new_items(r.items),
        takes = jsonb_build_object('routeId', v.content -> 'routeId')
        from form_versions v where v.form_id = r.form_id;
      alter table requests alter column way drop default,
        add constraint ck_requests_way check (way in ('form', 'telephone', 'dates')),
        add constraint ck_requests_form check ((form_id is null) = (form_version is null));
      create index ix_requests_form on requests (form_id);

      alter table agencies add column default_form_id uuid constraint fk_agencies_default_form references intake_forms;
      with form as (
        insert into intake_forms (title, published_version) select default_form ->> 'title', 1 from agencies where default_form is not null returning id, title),
      version as (
        insert into form_versions (form_id, number, content, published_at, published_by)
          select form.id, 1, pg_temp.new_content(form.title, a.default_form ->> 'intro', a.default_form -> 'fields', (a.default_form ->> 'routeId')::uuid),
            '2026-01-01T00:00:00Z', a.name
          from form cross join agencies a)
      update agencies set default_form_id = form.id from form;
      alter table agencies drop column default_form;

      alter table formats add column needs jsonb not null default '["about", "aim"]';
      alter table people add column may_edit_forms boolean not null default false;
      drop function pg_temp.new_content;
      drop function pg_temp.new_items;`);
  }

  /** A form for several clients or none, with several links, with a newer version, or with kinds of questions that were not there stops it. */
  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      create function pg_temp.old_fields(items jsonb) returns jsonb language sql as $$
        select coalesce(jsonb_agg((f - 'needed' - 'options' - 'kind')
          || jsonb_build_object('kind', case f ->> 'kind' when 'one_of' then 'choice' when 'day' then 'date' else f ->> 'kind' end)
          || case when f ? 'needed' then jsonb_build_object('required', f -> 'needed') else '{}' end
          || case when f ? 'options' then jsonb_build_object('options',
               (select jsonb_agg(o.option -> 'value' order by o.at) from jsonb_array_elements(f -> 'options') with ordinality o (option, at)))
             else '{}' end order by t.at), '[]')
        from jsonb_array_elements(items) with ordinality t (f, at) $$;
      alter table people drop column may_edit_forms;
      alter table formats drop column needs;

      alter table agencies add column default_form jsonb;
      update agencies a set default_form = jsonb_build_object('title', v.content -> 'title', 'intro', v.content -> 'intro',
          'fields', pg_temp.old_fields(v.content -> 'items'), 'routeId', v.content -> 'routeId')
        from form_versions v join intake_forms f on f.id = v.form_id and f.published_version = v.number where f.id = a.default_form_id;
      create temporary table gone as select default_form_id as id from agencies
        where default_form_id is not null and not exists (select 1 from form_clients c where c.form_id = default_form_id);
      alter table agencies drop column default_form_id;
      delete from form_versions where form_id in (select id from gone);
      delete from intake_forms where id in (select id from gone);
      drop table gone;

      drop index ix_requests_form;
      alter table requests drop constraint ck_requests_way, drop constraint ck_requests_form,
        drop column way, drop column form_version, drop column link_id, drop column contact_id, drop column owner_id, drop column takes,
        alter column form_id set not null, alter column requester_email set not null;
      update requests set items = pg_temp.old_fields(items);
      alter table requests rename column items to fields;

      alter table form_uses drop constraint fk_form_uses_link;
      update form_uses u set link_id = l.form_id from form_links l where l.id = u.link_id;
      alter table form_uses rename column link_id to form_id;
      alter table form_uses add constraint fk_form_uses_form foreign key (form_id) references intake_forms;

      drop index ix_intake_forms_title;
      alter table intake_forms drop constraint ck_intake_forms_something,
        add column client_id uuid constraint fk_intake_forms_client references clients, add column intro text not null default '', add column fields jsonb,
        add column route_id uuid constraint fk_intake_forms_route references routes,
        add column link_generation integer not null default 1, add column link_open boolean not null default true;
      update intake_forms f set client_id = l.client_id, link_generation = l.link_generation, link_open = l.link_open,
          intro = v.content ->> 'intro', fields = pg_temp.old_fields(v.content -> 'items'), route_id = (v.content ->> 'routeId')::uuid
        from form_links l, form_versions v where l.form_id = f.id and v.form_id = f.id and v.number = f.published_version;
      alter table intake_forms alter column client_id set not null, alter column fields set not null, alter column route_id set not null,
        drop column draft, drop column published_version, drop column archived_at, drop column version;
      create index ix_intake_forms_client on intake_forms (client_id);
      drop table form_links;
      drop table form_clients;
      drop table form_versions;
      drop function pg_temp.old_fields;`);
  }
}
