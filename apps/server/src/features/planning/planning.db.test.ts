import { Temporal } from 'temporal-polyfill';
import { addDays, getDay, getValue, ok } from '@zesting/core';
import { makePiece, makeScene, NOW, type Scene } from '../../../test-support/scene.js';
import {
  addMarker,
  addPlacement,
  cancelPlacement,
  duplicatePlacement,
  markOut,
  movePlacement,
  removeMarker,
  restorePlacement,
  swapPlacements,
} from '../calendar/index.js';
import { assignStep, beginStep, editContent, editPiece, handBack, handIn, sayRemaining } from '../production/index.js';
import { approveForClient, decide, sendPacket, settleRemark } from '../signoff/index.js';
import {
  computeStates,
  loadCalendars,
  loadOpenSteps,
  predict,
  predictSteps,
  replanOpen,
  storedPiece,
  storedPrediction,
  storedSteps,
} from './index.js';

/** A generator that gives the same numbers for the same seed. @see Mulberry32, public domain (from memory) */
function seeded(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

describe('the stored plan', () => {
  let scene: Scene;
  beforeAll(async () => {
    scene = await makeScene();
  }, 60_000);
  afterAll(() => scene.close());

  const random = seeded(20270301);
  const pick = <T>(list: readonly T[]): T | undefined => list[Math.floor(random() * list.length)];
  const rows = <Row>(sql: string, values: unknown[] = []) => scene.app.read<Row>(sql, values);

  /** One random operation through a use case. Most are refused by some rule, as most clicks of a monkey would be. */
  async function operate(): Promise<boolean> {
    const { app, people } = scene;
    const viewer = people.lead;
    const piece = pick(
      await rows<{ id: string; client_id: string; version: number; content_version: number }>(
        'select id, client_id, version, content_version from pieces order by id',
      ),
    );
    if (!piece || random() < 0.04)
      return Boolean(
        await makePiece(
          scene,
          random() < 0.5 ? scene.a : scene.b,
          random() < 0.2 ? null : addDays(getDay('2027-03-10'), Math.floor(random() * 40)),
        ),
      );
    const step = pick(
      await rows<{ id: string }>('select id from steps where piece_id = $1 and finished_on is null order by position limit 2', [piece.id]),
    );
    const placement = pick(
      await rows<{ id: string; version: number }>('select id, version from placements where piece_id = $1 order by id', [piece.id]),
    );
    const packet = pick(
      await rows<{ id: string; piece_id: string; approver: string }>(
        'select k.id, i.piece_id, k.approver_ids[1] as approver from packets k join packet_items i on i.packet_id = k.id where i.outcome is null order by k.id',
      ),
    );
    const remark = pick(await rows<{ id: string }>("select id from remarks where state = 'open' order by id"));
    const other = pick(await rows<{ id: string }>('select id from placements where client_id = $1 order by id', [piece.client_id]));
    const closure = pick(await rows<{ id: string }>('select id from client_closures order by id'));
    const on = addDays(getDay(app.clock.now().slice(0, 10)), Math.floor(random() * 30) - 2);
    const choices: (() => Promise<{ ok: boolean } | undefined>)[] = [
      async () => step && assignStep(app, viewer, step.id, pick([null, people.staff.personId, people.freelance.personId]) ?? null),
      async () => step && beginStep(app, viewer, step.id),
      async () => step && handIn(app, viewer, step.id),
      async () => step && handIn(app, viewer, step.id),
      async () => step && handIn(app, viewer, step.id),
      async () => step && sayRemaining(app, viewer, step.id, pick([null, 0, 30, 600, 2400]) ?? null),
      async () => step && handBack(app, viewer, step.id, 'Again'),
      async () =>
        editContent(
          app,
          viewer,
          piece.id,
          { shared: { copy: pick(['One', 'Two', 'Three']) ?? '', disclosure: '', media: [] }, channels: [] },
          piece.content_version,
        ),
      async () => editPiece(app, viewer, piece.id, { wishOn: random() < 0.3 ? null : on }, piece.version),
      async () => editPiece(app, viewer, piece.id, { shelved: random() < 0.2 }, piece.version),
      async () => placement && movePlacement(app, viewer, placement.id, { on: random() < 0.2 ? null : on }, placement.version),
      async () =>
        placement && (random() < 0.2 ? cancelPlacement(app, viewer, placement.id) : markOut(app, viewer, placement.id, 'https://x.test/1')),
      async () => addPlacement(app, viewer, piece.id, pick(piece.client_id === scene.a.id ? scene.a.channelIds : scene.b.channelIds) ?? ''),
      async () => sendPacket(app, viewer, piece.client_id, { title: 'P', pieceIds: [piece.id], dueOn: on }),
      async () => sendPacket(app, viewer, piece.client_id, { title: 'P', pieceIds: [piece.id], dueOn: on }),
      async () =>
        packet &&
        decide(app, {
          packetId: packet.id,
          pieceId: packet.piece_id,
          contactId: packet.approver,
          verdict: random() < 0.6 ? 'approve' : 'changes',
          remark: 'R',
          versionId: null,
          onBehalf: null,
        }),
      async () => remark && settleRemark(app, viewer, remark.id, { state: 'settled' }),
      async () => remark && settleRemark(app, viewer, remark.id, { state: 'answered', answer: 'It stays' }),
      async () => {
        const kind = pick(['any', 'all', 'agency']) ?? 'any';
        const policy = kind === 'agency' ? { kind, personId: viewer.personId } : { kind };
        await rows('update clients set policy = $2 where id = $1', [piece.client_id, JSON.stringify(policy)]);
        return { ok: true };
      },
      async () => approveForClient(app, viewer, piece.id),
      async () => placement && other && swapPlacements(app, viewer, placement.id, other.id),
      async () =>
        placement &&
        duplicatePlacement(app, viewer, placement.id, {
          channelId: pick(piece.client_id === scene.a.id ? scene.a.channelIds : scene.b.channelIds) ?? '',
          on,
        }),
      async () => placement && restorePlacement(app, viewer, placement.id),
      async () => placement && movePlacement(app, viewer, placement.id, { on, scope: 'all' }, placement.version),
      async () =>
        addMarker(app, viewer, { clientId: piece.client_id, kind: 'closure', name: 'Closed', startOn: on, endOn: addDays(getDay(on), 1) }),
      async () => closure && removeMarker(app, viewer, closure.id),
      async () => {
        app.clock.set(
          Temporal.Instant.from(app.clock.now())
            .add({ hours: Math.floor(random() * 10) })
            .toString(),
        );
        return { ok: true };
      },
    ];
    return (await pick(choices)?.())?.ok ?? false;
  }

  it('equals a full recompute, at rest, after 2,000 random operations with many midnights between them', async () => {
    scene.app.clock.set(NOW);
    for (let made = 0; made < 6; made++) await makePiece(scene, made % 2 ? scene.a : scene.b);
    let done = 0;
    for (let count = 0; count < 2000; count++) if (await operate()) done++;
    expect(done).toBeGreaterThan(600);
    // at rest: the clock has brought every open piece up to the present moment, and the prediction has followed
    getValue(await scene.app.write(async (tx, now) => ok(await replanOpen(tx, now))));
    getValue(await scene.app.write(async (tx, now) => ok(await predict(tx, now))));
    const now = scene.app.clock.now();
    const pieces = await rows<Record<string, unknown> & { id: string; list: string | null }>(
      'select id, stage, list, aim_on, aim_at, danger, slack_days, late_from_on, earliest_publish_on, packet_due_on, progress from pieces where list is not null order by id',
    );
    expect(pieces.length).toBeGreaterThan(10);
    const states = await computeStates(
      scene.app.manager,
      pieces.map((piece) => piece.id),
      now,
    );
    const milliseconds = (value: unknown) => (typeof value === 'string' ? Temporal.Instant.from(value).epochMilliseconds : null);
    expect(pieces.map((row) => ({ ...row, aim_at: milliseconds(row['aim_at']) }))).toEqual(
      states.map((state) => ({ ...storedPiece(state), aim_at: milliseconds(state.aimAt) })),
    );
    const steps = await rows<{ id: string }>(
      'select id, latest_start_on, latest_finish_on, earliest_start_on, earliest_finish_on, slack_days, danger from steps where piece_id = any($1) order by id',
      [pieces.map((piece) => piece.id)],
    );
    expect(steps).toEqual(states.flatMap(storedSteps).sort((a, b) => a.id.localeCompare(b.id)));
    const open = await loadOpenSteps(scene.app.manager);
    const predicted = predictSteps(open, await loadCalendars(scene.app.manager, now));
    expect(predicted.size).toBeGreaterThan(20);
    const predictions = await rows<{ id: string }>(
      'select id, predicted_start_on, predicted_finish_on, behind_steps from steps order by id',
    );
    expect(predictions).toEqual(predictions.map(({ id }) => storedPrediction(id, predicted.get(id))));
    const placements = await rows<{ id: string; state: string }>('select id, state from placements where piece_id = any($1)', [
      pieces.map((piece) => piece.id),
    ]);
    const states2 = Object.assign({}, ...states.map((state) => state.placements)) as Record<string, string>; // placement id to state
    expect(Object.fromEntries(placements.map((placement) => [placement.id, placement.state]))).toEqual(states2);
    const closed = await rows<{ id: string }>("select id from pieces where list is null and stage not in ('published', 'shelved')");
    expect(closed).toEqual([]);
  }, 240_000);

  it('is brought up to date by the clock: what was on course is overdue when nothing happens', async () => {
    scene.app.clock.set('2027-06-01T09:00:00Z');
    const pieceId = await makePiece(scene, scene.a, '2027-06-22');
    const listOf = async () =>
      (await rows<{ list: string; danger: string }>('select list, danger from pieces where id = $1', [pieceId]))[0];
    expect(await listOf()).toEqual({ list: 'no_doer', danger: 'fine' });
    scene.app.clock.set('2027-06-18T23:30:00Z');
    getValue(await scene.app.write(async (tx, now) => ok(await replanOpen(tx, now))));
    expect(await listOf()).toEqual({ list: 'overdue', danger: 'overdue' });
  });
});
