import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import { getValue } from '@zesting/core';
import { addRule, addRunUp, catchIdea } from '../src/features/plan/index.js';
import { addCampaign } from '../src/features/campaigns/index.js';
import { addDuty } from '../src/features/duties/index.js';
import { addMarker } from '../src/features/calendar/index.js';
import { submitRequest } from '../src/features/intake/index.js';
import { addPieceFile, assignStep, editContent, handIn } from '../src/features/production/index.js';
import { sendPacket } from '../src/features/sign-off/index.js';
import { addGoal, addStrategyNote } from '../src/features/goals/index.js';
import { addObservance } from '../src/features/clients/index.js';
import { addQuestionSet, askInterview } from '../src/features/interviews/index.js';
import { addTopics } from '../src/features/topics/index.js';
import { plainLine } from './spread-line.js';
import { makePiece, stepOf, type Scene, type SceneClient } from './scene.js';

/** Ids of one client's things, by the name that paths give them. */
export interface Things {
  readonly [param: string]: string;
}

/** A piece of a client that has gone all the way to the client, and what hangs on it. */
export async function makeThings(scene: Scene, client: SceneClient, isOwn: boolean): Promise<Things> {
  const { app, people } = scene;
  const pieceId = await makePiece(scene, client);
  const bytes = await sharp({ create: { width: 8, height: 8, channels: 3, background: '#fff' } })
    .png()
    .toBuffer();
  const file = getValue(await addPieceFile(app, pieceId, { name: 'a.png', bytes }));
  const feed = { channelId: client.channelIds[0] ?? '', copy: 'Feed', tags: [], firstComment: '', link: '' };
  const body = { shared: { copy: 'Copy', disclosure: '', media: [{ assetId: file.assetId, alt: '' }] }, channels: [feed] };
  getValue(await editContent(app, people.lead, pieceId, body, 1));
  const stepId = await stepOf(scene, pieceId, 'check');
  if (isOwn) {
    getValue(await assignStep(app, people.lead, await stepOf(scene, pieceId, 'write'), people.freelance.personId));
    getValue(await assignStep(app, people.lead, await stepOf(scene, pieceId, 'design'), people.staff.personId));
  }
  for (const key of ['write', 'design', 'check']) getValue(await handIn(app, people.lead, await stepOf(scene, pieceId, key)));
  const packetId = getValue(await sendPacket(app, people.lead, client.id, { title: 'P', pieceIds: [pieceId], dueOn: '2027-03-10' }));
  const submitted = getValue(
    await submitRequest(app, client.linkId, { name: 'N', email: 'n@x.test', answers: { about: 'X' }, version: 1 }, randomUUID()),
  );
  await app.read("update clients set brand = jsonb_set(brand, '{logos}', jsonb_build_array($2::text)) where id = $1", [
    client.id,
    file.assetId,
  ]);
  const [remark] = await app.read<{ id: string }>(
    `insert into remarks (client_id, piece_id, packet_id, contact_id, round, position, text, created_at)
     values ($1, $2, $3, $4, 1, 0, 'Warmer', now()) returning id`,
    [client.id, pieceId, packetId, client.contactId],
  );
  const [reply] = await app.read<{ id: string }>(
    `insert into remark_replies (remark_id, author_id, audience, text, created_at) values ($1, $2, 'team', 'Why?', now()) returning id`,
    [remark?.id, people.lead.personId],
  );
  const [worked] = await app.read<{ id: string }>(
    `insert into worked (client_id, piece_id, step_id, step_title, person_id, on_day, minutes) values ($1, $2, $3, 'Check', $4, '2027-03-01', 30) returning id`,
    [client.id, pieceId, stepId, people.lead.personId],
  );
  const [delivery] = await app.read<{ id: string }>(
    `insert into steps (piece_id, key, title, kind, skill, span_days, position, started_on, finished_on)
     values ($1, 'bring', 'Pictures', 'deliver', 'deliver', 1, 9, '2027-02-22', '2027-02-24') returning id`,
    [pieceId],
  );
  await app.read(
    `insert into deliveries (step_id, piece_id, contact_id, words, due_on, asked_by, asked_at, brought_at, brought_by)
     values ($1, $2, $3, 'The pictures', '2027-02-24', $4, now(), now(), 'Contact')`,
    [delivery?.id, pieceId, client.contactId, people.lead.personId],
  );
  const [material] = await app.read<{ id: string }>(
    `insert into materials (piece_id, sort, text, contact_id, step_id, added_at) values ($1, 'original', 'Words', $2, $3, now()) returning id`,
    [pieceId, client.contactId, delivery?.id],
  );
  const [note] = await app.read<{ id: string }>(
    `insert into team_notes (client_id, piece_id, author_id, kind, text, created_at) values ($1, $2, $3, 'comment', 'Look', now()) returning id`,
    [client.id, pieceId, people.lead.personId],
  );
  const [obstacle] = await app.read<{ id: string }>(
    `insert into obstacles (client_id, piece_id, words, whose, raised_by, raised_at) values ($1, $2, 'No photos', 'client', $3, now()) returning id`,
    [client.id, pieceId, people.lead.personId],
  );
  const unkept = await app.read<{ id: string }>(
    `insert into assets (client_id, hash, name, mime, bytes, created_at)
     select $1, repeat(h, 64), 'unkept.png', 'image/png', 1, now() from unnest(array['e', 'f']) h returning id`,
    [client.id],
  );
  const [keptFile] = await app.read<{ id: string }>(
    `with a as (insert into assets (client_id, hash, name, mime, bytes, created_at) select $1, hash, 'kept.png', mime, bytes, now() from assets where id = $2 returning id, hash, mime, bytes),
       small as (insert into asset_sizes (asset_id, width, marked, hash, mime, bytes) select id, 160, false, hash, mime, bytes from a)
     insert into kept_files (client_id, asset_id, kind, title, about, since) select $1, id, 'product', 'K', '', now() from a returning id`,
    [client.id, file.assetId],
  );
  const [phrase] = await app.read<{ id: string }>(
    `insert into phrases (client_id, kind, text, made_at) values ($1, 'opening', 'P', now()) returning id`,
    [client.id],
  );
  const [tagSet] = await app.read<{ id: string }>(
    `insert into tag_sets (client_id, name, tags, made_at) values ($1, 'T', '{a}', now()) returning id`,
    [client.id],
  );
  const [spread] = await app.read<{ id: string }>(
    `insert into spreads (client_id, name, lines, made_at) values ($1, 'S', $2, now()) returning id`,
    [client.id, JSON.stringify([plainLine(scene.routeId)])],
  );
  const [followUp] = await app.read<{ id: string }>(
    `insert into follow_ups (placement_id, client_id, kind, item_key, position, words, due_on)
     select id, client_id, 'follow_up', gen_random_uuid(), 0, 'Share it', '2027-03-02' from placements where piece_id = $1 limit 1 returning id`,
    [pieceId],
  );
  const [guideline] = await app.read<{ id: string }>(
    `insert into guidelines (title, text, client_id, edited_by, edited_at) values ('G', 'T', $1, $2, now()) returning id`,
    [client.id, people.lead.personId],
  );
  const [mail] = await app.read<{ id: string }>(
    `insert into incoming_mails (client_id, message_id, from_name, from_email, subject, text, files, hash, bytes, state, received_at)
     values ($1, '<m@x.test>', 'M', 'm@x.test', 'S', 'T', '[]', $2, 1, 'waiting', now()) returning id`,
    [client.id, '0'.repeat(64)],
  );
  const [placement] = await app.read<{ id: string }>('select id from placements where piece_id = $1 limit 1', [pieceId]);
  const marker = { clientId: client.id, kind: 'launch', name: 'Launch', startOn: '2027-03-16', endOn: '2027-03-16' } as const;
  const markerId = getValue(await addMarker(app, people.lead, marker));
  const shoot = { ...marker, kind: 'production_day', name: 'Shoot', startOn: '2027-03-24', endOn: '2027-03-24' } as const;
  const shootId = getValue(await addMarker(app, people.lead, shoot));
  const [channelId = ''] = client.channelIds;
  const rule = { channelId, rule: 'FREQ=WEEKLY;BYDAY=TU', at: '09:00', fromOn: '2027-03-02', untilOn: null };
  const ruleId = getValue(await addRule(app, people.lead, client.id, { ...rule, skipsHolidays: false, pillarId: null, formatId: null }));
  const ideaId = getValue(await catchIdea(app, people.lead, { title: 'An idea', clientId: client.id }));
  const duty = { clientId: client.id, title: 'D', remark: '', checklist: [], rule: 'FREQ=DAILY', fromOn: '2027-03-02', untilOn: null };
  const doers = { leadDays: 0, leadId: people.staff.personId, secondId: people.freelance.personId, minutes: 5, piece: null };
  const dutyId = getValue(await addDuty(app, people.lead, { ...duty, ...doers }));
  const [pillar] = await app.read<{ id: string }>("insert into pillars (client_id, name) values ($1, 'Pillar') returning id", [client.id]);
  const pillarId = pillar?.id ?? '';
  const [topicId = ''] = getValue(await addTopics(app, people.lead, client.id, { pillarId, parentId: null, names: ['Topic'] }));
  const figures = { measure: 'reading', unit: '', startValue: 1, target: 2, startOn: '2027-02-01', byOn: '2027-12-31' } as const;
  const goalId = getValue(await addGoal(app, people.lead, client.id, { name: 'G', channelId: null, ...figures, pillarIds: [], steps: [] }));
  const strategyId = getValue(await addStrategyNote(app, people.lead, client.id, { kind: 'works', text: 'T' }));
  const months = { fromOn: '2027-03-01', toOn: '2027-04-30', channelIds: [], markerIds: [] };
  const campaignId = getValue(await addCampaign(app, people.lead, client.id, { name: 'C', aim: '', ...months }));
  const runUp = { offsetDays: -3, title: 'Teaser', channelId, routeId: scene.routeId };
  const runUpId = getValue(await addRunUp(app, people.lead, markerId, runUp));
  const questions = { title: 'Questions', questions: ['Why?'] };
  const setId = getValue(await addQuestionSet(app, people.lead, { ...questions, clientId: client.id, treatment: '' }));
  const interviewId = getValue(await askInterview(app, people.lead, client.id, { ...questions, contactId: client.contactId, dueOn: null }));
  const [question] = await app.read<{ id: string }>('select id from interview_questions where interview_id = $1', [interviewId]);
  const yearly = { clientId: client.id, name: 'Day', on: '2027-05-05', subjects: [] };
  const observanceId = getValue(await addObservance(app, people.lead, yearly));
  const [reset] = await app.read<{ id: string }>(
    "insert into password_resets (person_id, asked_at, ends_at) values ($1, '2027-03-01T09:00:00Z', '2027-03-01T10:00:00Z') returning id",
    [people.freelance.personId],
  );
  return {
    pieceId,
    markerId,
    shootId,
    ruleId,
    runUpId,
    ideaId,
    dutyId,
    pillarId,
    topicId,
    setId,
    channelId,
    observanceId,
    interviewId,
    questionId: question?.id ?? '',
    goalId,
    campaignId,
    strategyId,
    staffId: people.staff.personId,
    tabId: randomUUID(),
    viewId: randomUUID(),
    uploadId: randomUUID(),
    stepId,
    packetId,
    assetId: file.assetId,
    clientId: client.id,
    requestId: submitted.requestId,
    placementId: placement?.id ?? '',
    remarkId: remark?.id ?? '',
    replyId: reply?.id ?? '',
    workedId: worked?.id ?? '',
    deliveryId: delivery?.id ?? '',
    materialId: material?.id ?? '',
    noteId: note?.id ?? '',
    obstacleId: obstacle?.id ?? '',
    tagSetId: tagSet?.id ?? '',
    phraseId: phrase?.id ?? '',
    keptFileId: keptFile?.id ?? '',
    unkeptId: unkept[0]?.id ?? '',
    otherUnkeptId: unkept[1]?.id ?? '',
    spreadId: spread?.id ?? '',
    followUpId: followUp?.id ?? '',
    guidelineId: guideline?.id ?? '',
    mailId: mail?.id ?? '',
    routeId: scene.routeId,
    secret: `${app.links.token('feed', client.id, 1)}.ics`,
    form: client.linkId,
    formId: client.formId,
    number: '1',
    formatId: randomUUID(),
    contact: client.contactId,
    contactId: client.contactId,
    receipt: submitted.requestId,
    // a person is nobody's client's: the own one is the staff creator, the other the manager
    personId: isOwn ? people.staff.personId : people.manager.personId,
    leadId: people.lead.personId,
    timeOffId: randomUUID(),
    coverId: randomUUID(),
    invited: people.freelance.personId,
    resetting: reset?.id ?? '',
    deviceId: randomUUID(),
  };
}
