// Consistent data of any size for benchmarks, made by SQL from the demo's own rows: clients, people, pieces with steps, versions, placements,
// packets with decisions, requests and their record. Three in a hundred pieces are open, as with an agency of some years.

const WORDS = ['fern', 'loaf', 'harvest', 'window', 'season', 'oven', 'bench', 'market', 'winter', 'garden', 'copper', 'letter'];

/**
 * Fills the database up to `pieces` pieces.
 * @param query runs one statement
 */
export async function fill(query, pieces) {
  const clients = Math.max(8, Math.min(300, Math.round(pieces / 800)));
  const people = Math.max(12, Math.min(120, Math.round(pieces / 1500)));
  await query('alter table steps disable trigger tr_steps_worked_clients');
  await query(
    `insert into people (name, email, password_hash, role, zone, region, weekly_minutes, skills)
     select 'Person ' || n, 'person' || n || '@big.test', password_hash, case when n % 10 = 0 then 'manager' when n % 3 = 0 then 'freelance' else 'staff' end,
       zone, region, weekly_minutes, skills
     from (select * from people where role = 'staff' order by name limit 1) p, generate_series(1, $1) n`,
    [people],
  );
  const letters = `translate(lpad(to_hex(n), 4, '0'), '0123456789abcdef', 'ABCDEFGHJKLMNPQR')`;
  await query(
    `insert into clients (code, name, colour, zone, region, weekly_minutes, usual_time, policy, brand)
     select 'B' || ${letters}, 'Big client ' || n, n % 12, zone, region, weekly_minutes, usual_time, '{"kind":"any"}', brand
     from (select * from clients order by code limit 1) c, generate_series(1, $1) n`,
    [clients],
  );
  const big = `(select id, row_number() over (order by code) - 1 as n from clients where name like 'Big client %')`;
  await query(`insert into channels (client_id, kind, name, position) select id, 'photo_feed', 'Photo feed', 0 from ${big} b`);
  await query(`insert into channels (client_id, kind, name, position) select id, 'blog', 'Blog', 1 from ${big} b`);
  await query(
    `insert into contacts (client_id, name, email, can_sign_off) select id, 'Contact ' || n, 'contact' || n || '@big.test', true from ${big} b`,
  );
  await query(
    `insert into client_people (client_id, person_id) select b.id, p.id from ${big} b
     join (select id, row_number() over (order by email) - 1 as n, count(*) over () as total from people where email like 'person%' and role <> 'freelance') p
       on p.n in (b.n % p.total, (b.n * 7 + 1) % p.total)`,
  );
  // each client asks by the first form of the demo, through a link of its own
  const [form] = await query(
    "select f.id, f.title from intake_forms f where f.title = 'Ask for content' and exists (select 1 from form_clients c where c.form_id = f.id) limit 1",
  );
  await query(`insert into form_clients (form_id, client_id) select $1, b.id from ${big} b`, [form.id]);
  await query(`insert into form_links (form_id, client_id, label, made_at) select $1, b.id, 'First', '2026-01-01' from ${big} b`, [
    form.id,
  ]);
  await query(
    `create table big_pieces as select gen_random_uuid() as id, gen_random_uuid() as request_id, gen_random_uuid() as version_id, i as n, b.id as client_id,
       i % 33 = 0 as open, timestamptz '2027-03-09 10:00Z' - make_interval(hours => (i * 24 / 100)::int) as at
     from generate_series(1, $1) i join ${big} b on b.n = i % (select count(*) from ${big} c)`,
    [pieces],
  );
  const title = `(array['${WORDS.join("','")}'])[1 + n % 12] || ' ' || (array['${WORDS.join("','")}'])[1 + (n / 12) % 12] || ' ' || n`;
  await query(
    `insert into requests (id, client_id, way, form_id, form_version, link_id, items, answers, takes, title, requester_name, requester_email, state, received_at, decided_at, read_at)
     select g.request_id, g.client_id, 'form', l.form_id, 1, l.id, r.items, r.answers, r.takes, ${title}, 'Asker', 'asker@big.test',
       case when g.n % 200 = 0 then 'new' else 'accepted' end, g.at - interval '10 days', case when g.n % 200 = 0 then null else g.at end, g.at
     from big_pieces g join form_links l on l.client_id = g.client_id and l.label = 'First', (select * from requests order by number limit 1) r`,
  );
  await query(
    `insert into pieces (id, client_id, route_id, format_id, title, content, digests, created_at, stage, list, wish_on, aim_on, aim_at, danger, slack_days, revision, progress)
     select g.id, g.client_id, p.route_id, p.format_id, ${title}, p.content, p.digests, g.at,
       case when g.open then 'in_production' else 'published' end, case when g.open then 'on_course' end,
       (date '2027-03-09' + (n % 60)::int), case when g.open then date '2027-03-09' + (n % 60)::int end, null, case when g.open then 'fine' end, case when g.open then 5 end, 1, p.progress
     from big_pieces g, (select * from pieces where stage = 'published' order by number limit 1) p`,
  );
  await query('insert into piece_requests (piece_id, request_id) select id, request_id from big_pieces where n % 200 <> 0');
  // six steps in a row; the ids of a piece's steps are made from the piece's, so that each can name the one before
  await query(
    `insert into steps (id, piece_id, key, title, kind, skill, doer_id, span_days, effort_minutes, predecessor_ids, position, round, started_on, finished_on, assigned_on)
     select md5(g.id::text || k)::uuid, g.id, 'step' || k, 'Step ' || k, case when k = 5 then 'sign_off' when k = 4 then 'check' else 'make' end, 'write',
       case when k = 5 then null else d.id end, 1 + k % 2, 90, case when k = 0 then '{}' else array[md5(g.id::text || (k - 1))::uuid] end, k, 1,
       case when not g.open or k < g.n % 4 then g.at::date end, case when not g.open or k < g.n % 4 then g.at::date + k end, g.at::date
     from big_pieces g, generate_series(0, 5) k
     join (select id, row_number() over (order by email) - 1 as n, count(*) over () as total from people where email like 'person%') d on true
     where d.n = (g.n * 3 + k) % d.total`,
  );
  await query(
    `insert into versions (id, piece_id, number, content, digests, scheme, frozen_at) select g.version_id, g.id, 1, p.content, p.digests, 'zesting-part-1', g.at
     from big_pieces g join pieces p on p.id = g.id`,
  );
  await query(
    `insert into placements (client_id, piece_id, channel_id, on_day, at_time, zone, publish_at, state, out_at, out_address, created_at, updated_at)
     select g.client_id, g.id, h.id, case when g.open then null else (g.at + interval '14 days')::date end, case when g.open then null else time '09:00' end, c.zone,
       case when g.open then null else g.at + interval '14 days' end, case when g.open then 'undated' else 'out' end,
       case when g.open then null else g.at + interval '14 days' end, case when g.open then null else 'https://big.test/' || g.n end, g.at, g.at
     from big_pieces g join channels h on h.client_id = g.client_id join clients c on c.id = g.client_id`,
  );
  // on every blog somebody puts in what goes out, and answers for a day once it is out: of a thousand that were out three are still to be answered
  await query(
    `insert into follow_up_lists (channel_id, client_id, items)
     select h.id, h.client_id, jsonb_build_array(jsonb_build_object('key', md5('enter' || h.id)::uuid, 'kind', 'enter', 'words', 'Put it in', 'days', 1, 'forDays', 1, 'personId', p.person_id, 'minutes', 15))
     from channels h join lateral (select person_id from client_people o where o.client_id = h.client_id order by person_id limit 1) p on true
     where h.kind = 'blog' and h.client_id in (select distinct client_id from big_pieces)`,
  );
  await query(
    `update placements l set on_day = date '2027-03-10' + (g.n % 60)::int, at_time = time '09:00', state = 'pencilled',
       publish_at = (date '2027-03-10' + (g.n % 60)::int + time '09:00') at time zone l.zone
     from big_pieces g, channels h where g.id = l.piece_id and g.open and h.id = l.channel_id and h.kind = 'blog'`,
  );
  await query(
    `insert into follow_ups (placement_id, client_id, kind, item_key, position, words, due_on, person_id, minutes, state, settled_by, settled_at)
     select l.id, l.client_id, 'follow_up', md5('answer' || l.channel_id)::uuid, 1, 'Answer', l.on_day, p.person_id, 10,
       case when g.n % 333 = 0 then 'open' else 'done' end, case when g.n % 333 = 0 then null else 'Big' end, case when g.n % 333 = 0 then null else l.publish_at end
     from placements l join big_pieces g on g.id = l.piece_id join channels h on h.id = l.channel_id and h.kind = 'blog'
     join lateral (select person_id from client_people o where o.client_id = l.client_id order by person_id limit 1) p on true where l.out_at is not null`,
  );
  // every twentieth that was out lasts, and each client has forty phrases, each put into ten pieces
  await query(
    `insert into evergreens (piece_id, client_id, rest_days, times_most, until_on, marked_by, marked_at, version)
     select id, client_id, 60, null, null, 'Big', at, 1 from big_pieces where not open and n % 20 = 0`,
  );
  await query(
    `insert into phrases (id, client_id, kind, text, pillar_id, made_at)
     select md5('phrase' || c.id || k)::uuid, c.id, (array['opening', 'closing', 'call_to_action', 'template'])[1 + k % 4], 'Phrase ' || k, null, timestamptz '2026-01-01 09:00Z'
     from (select distinct client_id as id from big_pieces) c, generate_series(1, 40) k`,
  );
  await query(
    `insert into phrase_uses (phrase_id, piece_id, used_at)
     select md5('phrase' || g.client_id || 1 + g.r % 40)::uuid, g.id, g.at
     from (select id, client_id, at, row_number() over (partition by client_id order by n) as r from big_pieces) g where g.r <= 400`,
  );
  // each client keeps two hundred files, each taken into twenty pieces; a third of the pieces that go out lead to a page
  await query(
    `insert into assets (id, client_id, hash, name, mime, bytes, width, height, created_at)
     select md5('kept' || c.id || k)::uuid, c.id, md5('kept' || c.id || k) || repeat('0', 32), 'file-' || k || '.png', 'image/png', 90000, 900, 900, timestamptz '2026-01-01 09:00Z'
     from (select distinct client_id as id from big_pieces) c, generate_series(1, 200) k`,
  );
  await query(
    `insert into kept_files (id, client_id, asset_id, kind, title, about, renew_by, since)
     select md5('file' || client_id || id)::uuid, client_id, id, 'product', 'Loaf ' || name, 'A loaf, and a fern behind it', date '2027-03-01' + (bytes % 7)::int * 40, created_at
     from assets where name like 'file-%'`,
  );
  await query(
    `insert into kept_file_uses (kept_file_id, piece_id, asset_id, used_at)
     select k.id, g.id, k.asset_id, g.at from (select id, client_id, asset_id, row_number() over (partition by client_id order by id) as r from kept_files) k
     join (select id, client_id, at, row_number() over (partition by client_id order by n) as r from big_pieces) g on g.client_id = k.client_id and g.r % 200 = k.r % 200 and g.r <= 4000`,
  );
  await query(
    `insert into asked_pages (address, status, asked_at, next_at, wanted_until)
     select 'https://big.test/' || n, 200, at, null, at from big_pieces where n % 3 = 0`,
  );
  await query(
    `insert into packets (id, client_id, title, message, due_on, policy, approver_ids, sent_at, sent_by, closed_at)
     select md5('packet' || g.id)::uuid, g.client_id, 'Packet ' || g.n, '', (case when g.n % 400 = 0 then date '2027-03-09' - (g.n / 400) % 25 else g.at::date end) + 5,
       '{"kind":"any"}', array[x.id], case when g.n % 400 = 0 then timestamptz '2027-03-09 10:00Z' - make_interval(days => (g.n / 400) % 25) else g.at end, (select id from people where role = 'lead' limit 1),
       case when g.n % 400 = 0 then null else g.at end
     from big_pieces g join contacts x on x.client_id = g.client_id where g.n % 4 = 0`,
  );
  await query(
    `insert into packet_items (packet_id, piece_id, version_id, round, outcome)
     select md5('packet' || g.id)::uuid, g.id, g.version_id, 1, case when g.n % 400 = 0 then null else 'approved' end from big_pieces g where g.n % 4 = 0`,
  );
  await query(
    `insert into decisions (client_id, sequence, packet_id, piece_id, version_id, contact_id, verdict, digests, remark, decided_at, how, head, scheme)
     select g.client_id, row_number() over (partition by g.client_id order by g.n), md5('packet' || g.id)::uuid, g.id, g.version_id, x.id, 'approve',
       array[p.digests ->> 'shared'], '', g.at, '', repeat('0', 64), 'zesting-part-1'
     from big_pieces g join contacts x on x.client_id = g.client_id join pieces p on p.id = g.id where g.n % 4 = 0 and g.n % 400 <> 0`,
  );
  await query(
    `insert into activities (client_id, thing, thing_id, verb, actor, detail, at)
     select g.client_id, 'piece', g.id, (array['piece.created', 'step.handed_in', 'piece.sent', 'piece.approved'])[k], 'Somebody', '{}', g.at
     from big_pieces g, generate_series(1, 4) k`,
  );
  await query(
    'insert into worked_clients select distinct s.doer_id, p.client_id from steps s join pieces p on p.id = s.piece_id where s.doer_id is not null on conflict do nothing',
  );
  // every client has a rhythm on each of its channels, and thirty ideas for every hundred pieces
  await query(
    `insert into rhythm_rules (client_id, channel_id, rule, at_time, anchor_on, from_on, skips_holidays)
     select h.client_id, h.id, 'FREQ=WEEKLY;BYDAY=MO,WE,FR', '09:00', '2026-01-05', '2026-01-05', true from channels h join clients c on c.id = h.client_id where c.code ~ '^B'`,
  );
  await query(
    `insert into ideas (client_id, title, merit, author_id, created_at) select g.client_id, ${title}, 1 + g.n % 5, (select id from people where role = 'lead' limit 1), g.at
     from big_pieces g where g.n % 10 < 3`,
  );
  // a question about every fifth idea, half of them closed; themes of every client
  await query(
    `insert into interviews (client_id, idea_id, title, asked_by, asked_at, closed_at) select client_id, id, title, author_id, created_at, case when n % 2 = 0 then created_at end
     from (select *, row_number() over () as n from ideas) i where client_id is not null and n % 5 = 0`,
  );
  await query(
    'insert into interview_questions (interview_id, position, question) select id, k, title from interviews, generate_series(0, 3) k on conflict do nothing',
  );
  await query(
    `insert into client_plans (client_id, cycle_names, cycle_from) select id, '{Spring bread,Gardens,Knots and rope}', '2027-01' from clients where code ~ '^B' on conflict do nothing`,
  );
  // and subjects of which a tenth of the pieces is, campaigns of which a twentieth is, goals, and a duty for every second day
  await query(
    `insert into pillars (client_id, name, share, position) select c.id, 'Pillar ' || k, 30, k from clients c, generate_series(1, 3) k
     where c.code ~ '^B' and not exists (select 1 from pillars p where p.client_id = c.id)`,
  );
  await query(
    `insert into topics (client_id, pillar_id, name, position) select p.client_id, p.id, 'Topic ' || k, k from pillars p join clients c on c.id = p.client_id and c.code ~ '^B', generate_series(1, 60) k`,
  );
  await query(
    "insert into treatments (client_id, names) select id, '{Story,How to,Close-up}' from clients where code ~ '^B' on conflict do nothing",
  );
  await query(
    `insert into topic_uses (client_id, topic_id, treatment, piece_id)
     select g.client_id, t.id, (array['Story', 'How to', 'Close-up'])[1 + g.n % 3], g.id from big_pieces g
     join lateral (select id from topics t where t.client_id = g.client_id order by t.position, t.id limit 1 offset g.n % 150) t on true where g.n % 10 = 0`,
  );
  await query(
    `insert into campaigns (client_id, name, from_on, to_on) select id, 'Campaign ' || k, date '2026-01-05' + k * 30, date '2026-02-15' + k * 30
     from clients, generate_series(1, 20) k where code ~ '^B'`,
  );
  await query(
    `insert into campaign_pieces (piece_id, campaign_id) select g.id, k.id from big_pieces g
     join lateral (select id from campaigns k where k.client_id = g.client_id order by k.from_on limit 1 offset g.n % 20) k on true where g.n % 20 = 0`,
  );
  await query(
    `insert into goals (client_id, name, measure, start_value, target, start_on, by_on) select id, 'Goal ' || k, 'pieces', 0, 500, '2026-01-05', '2027-12-31'
     from clients, generate_series(1, 3) k where code ~ '^B'`,
  );
  await query(
    `insert into duties (client_id, title, rule, anchor_on, from_on, lead_id, minutes)
     select c.id, 'Duty ' || k, case k % 2 when 0 then 'FREQ=DAILY' else 'FREQ=WEEKLY;BYDAY=FR' end, '2026-01-05', '2026-01-05',
       (select id from people where role in ('staff', 'manager') and active order by md5(id::text || c.id::text || k::text) limit 1), 10
     from clients c, generate_series(1, 4) k where c.code ~ '^B'`,
  );
  // something stood in the way of every tenth piece, and does of every fourth that is open; guidelines, and who usually writes
  await query(
    `insert into obstacles (client_id, piece_id, step_id, words, whose, raised_by, raised_at, settled_at)
     select g.client_id, g.id, case when g.open then s.id end, 'No ' || ${title}, 'client', (select id from people where role = 'lead' limit 1), g.at,
       case when not g.open then g.at + interval '2 days' end
     from big_pieces g join lateral (select id from steps s where s.piece_id = g.id order by (s.finished_on is null) desc, s.position limit 1) s on true
     where g.n % case when g.open then 4 else 10 end = 0`,
  );
  await query(
    `insert into guidelines (title, text, client_id, edited_by, edited_at)
     select 'Guideline ' || k, repeat('Short words. ', 40), c.id, (select id from people where role = 'lead' limit 1), '2026-01-05' from clients c, generate_series(1, 5) k`,
  );
  await query(
    `insert into client_team (client_id, skill, person_id) select c.id, 'write', w.id from clients c join lateral (select id from people
       where role = 'staff' and active and (skills ->> 'write')::int > 0 order by md5(id::text || c.id::text) limit 1) w on true where c.code ~ '^B'
     on conflict do nothing`,
  );
  // two remarks of the team on every third piece, one of them at a place; hours on every second step
  await query(
    `insert into remarks (client_id, piece_id, author_id, audience, round, position, text, place, state, settled_by, settled_at, created_at)
     select g.client_id, g.id, (select id from people where role = 'lead' limit 1), 'team', 1, k, 'Remark ' || k,
       case when k = 1 then jsonb_build_object('kind', 'stretch', 'channelId', null, 'from', 0, 'to', 4, 'onText', p.content -> 'shared' ->> 'copy') end,
       case when g.open then 'open' else 'settled' end, case when not g.open then 'L' end, case when not g.open then g.at end, g.at
     from big_pieces g join pieces p on p.id = g.id, generate_series(1, 2) k where g.n % 3 = 0`,
  );
  await query(
    `insert into worked (client_id, piece_id, step_id, step_title, person_id, on_day, minutes)
     select g.client_id, g.id, s.id, s.title, s.doer_id, s.started_on, 45 from big_pieces g join steps s on s.piece_id = g.id
     where s.doer_id is not null and s.started_on is not null and s.position % 2 = 0`,
  );
  // what every piece says; every fifth is made from another of its client, and some of these are behind
  await query(
    `insert into piece_words select p.id, p.client_id, c.language, p.created_at, words_of(c.language, p.title, p.notes, p.content)
     from big_pieces g join pieces p on p.id = g.id join clients c on c.id = p.client_id on conflict do nothing`,
  );
  await query(
    `insert into spreads (client_id, name, format_id, used_since, made_at, lines)
     select c.id, 'Spread', p.format_id, '2026-01-05', '2026-01-05', jsonb_build_array(jsonb_build_object('key', 'clip', 'name', 'Clip', 'channelId', h.id, 'routeId', p.route_id,
       'offset', '{"count": 2, "unit": "working_days"}'::jsonb, 'change', '', 'needsCopy', false, 'needsPicture', false, 'shape', 'as_it_is', 'callToAction', '',
       'guidelineId', null, 'doers', '[]'::jsonb, 'obstacle', ''))
     from clients c join lateral (select id from channels h where h.client_id = c.id order by position limit 1) h on true,
       (select format_id, route_id from pieces where stage = 'published' order by number limit 1) p where c.code ~ '^B'`,
  );
  await query(
    `insert into spin_offs (piece_id, source_id, client_id, spread_id, line_key, name, shape, call_to_action, anew, obstacle, "offset", seen, stale, made_at)
     select g.id, s.id, g.client_id, d.id, 'clip', 'Clip', 'as_it_is', '', '{}', '', '{"count": 2, "unit": "working_days"}',
       jsonb_build_object('title', p.title, 'purpose', null, 'copy', '', 'media', '[]'::jsonb, 'disclosure', '', 'link', '{}'::jsonb, 'tags', '{}'::jsonb),
       case when g.n % 50 = 0 then '{copy}' else '{}' end::text[], g.at
     from (select *, row_number() over (partition by client_id order by n) as r from big_pieces) g
     join (select *, row_number() over (partition by client_id order by n) as r from big_pieces) s on s.client_id = g.client_id and s.r = g.r - g.r % 10
     join pieces p on p.id = s.id join spreads d on d.client_id = g.client_id where g.r % 10 in (1, 2) on conflict do nothing`,
  );
  await query('alter table steps enable trigger tr_steps_worked_clients');
  await query('drop table big_pieces');
  await query('analyze');
}
