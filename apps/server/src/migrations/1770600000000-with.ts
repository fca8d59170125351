import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Who has had a part in a step of a client's: whoever does it, and whoever takes it with them. As before, a row is locked before it is taken away. */
const KEEP = (columns: readonly ('doer_id' | 'with_id')[]): string => {
  const each = (row: string): string => columns.map((column) => `${row}.${column}`).join(', ');
  const any = columns.map((column) => `s.${column} = person`).join(' or ');
  return `
  create or replace function keep_worked_clients() returns trigger language plpgsql as $$
  declare
    of_client uuid;
    person uuid;
    before uuid[] := '{}';
    after uuid[] := '{}';
  begin
    if tg_op <> 'INSERT' then before := array_remove(array[${each('old')}], null); end if;
    if tg_op <> 'DELETE' then after := array_remove(array[${each('new')}], null); end if;
    foreach person in array before loop
      if person <> all (after) then
        select client_id into of_client from pieces where id = old.piece_id;
        perform 1 from worked_clients where person_id = person and client_id = of_client for update;
        delete from worked_clients w where w.person_id = person and w.client_id = of_client
          and not exists (select 1 from steps s join pieces p on p.id = s.piece_id where (${any}) and p.client_id = of_client);
      end if;
    end loop;
    foreach person in array after loop
      if person <> all (before) then
        insert into worked_clients (person_id, client_id) select person, client_id from pieces where id = new.piece_id
          on conflict (person_id, client_id) do update set client_id = excluded.client_id;
      end if;
    end loop;
    return null;
  end $$`;
};

/** A step that somebody takes together with another: the second one learns, and none of its hours are theirs. */
export class With1770600000000 implements MigrationInterface {
  async up(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      alter table steps add column with_id uuid constraint fk_steps_with references people,
        add constraint ck_steps_with check ((with_id is null) or ((doer_id is not null) and (with_id <> doer_id)));
      create index ix_steps_with on steps (with_id, piece_id) where with_id is not null;
      ${KEEP(['doer_id', 'with_id'])};
      drop trigger tr_steps_worked_clients on steps;
      create trigger tr_steps_worked_clients after insert or delete or update of doer_id, with_id on steps for each row execute function keep_worked_clients()`);
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`
      drop trigger tr_steps_worked_clients on steps;
      update steps set with_id = null where with_id is not null;
      ${KEEP(['doer_id'])};
      create trigger tr_steps_worked_clients after insert or delete or update of doer_id on steps for each row execute function keep_worked_clients();
      drop index ix_steps_with;
      alter table steps drop column with_id;
      delete from worked_clients w where not exists (select 1 from steps s join pieces p on p.id = s.piece_id where s.doer_id = w.person_id and p.client_id = w.client_id)`);
  }
}
