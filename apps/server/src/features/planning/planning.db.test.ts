import { isDeepStrictEqual } from 'node:util';
import { Temporal } from 'temporal-polyfill';
import type { ContactBody, PathChangeBody } from '@zesting/contract';
import { addDays, getDay, getValue, ok, weekdayOf } from '@zesting/core';
import { makePiece, makeScene, NOW, stepOf, type Scene } from '../../../test-support/scene.js';
import { signOffIn } from '../../../test-support/sign-off.js';
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
import { seeded } from '../../../test-support/seeded.js';
import { Jobs } from '../../platform/jobs/jobs.js';
import { editClient } from '../clients/index.js';
import { addDuty, endDuty, markDuty } from '../duties/index.js';
import { enterPlacement, putFollowUpList, settleFollowUp } from '../follow-ups/index.js';
import { raiseObstacle, settleObstacle } from '../obstacles/index.js';
import { addTimeOff, comeBack, editPerson, importTimeOff, leave, removeTimeOff } from '../people/index.js';
import { assignStep, beginStep, changePiecePath, editContent, editPiece, handBack, handIn, sayRemaining } from '../production/index.js';
import { settleRemark } from '../remarks/index.js';
import { approveForClient, decide, sendPacket } from '../sign-off/index.js';
import {
  computeStates,
  loadCalendars,
  loadOtherHours,
  loadOpenSteps,
  predict,
  predictSteps,
  replanOpen,
  storedPiece,
  storedPrediction,
  storedSteps,
} from './index.js';

describe('the stored plan', () => {
  let scene: Scene;
  beforeAll(async () => {
    scene = await makeScene();
    await scene.server.get(Jobs).beforeApplicationShutdown(); // no job brings up what an operation forgot
  });
  afterAll(() => scene.close());

  let lastDone = '';
  const random = seeded(20270301);
  const clientVersion = async (clientId: string) =>
    (await rows<{ version: number }>('select version from clients where id = $1', [clientId]))[0]?.version ?? 0;
  const pick = <T>(list: readonly T[]): T | undefined => list[Math.floor(random() * list.length)];
  const rows = <Row>(sql: string, values: unknown[] = []) => scene.app.read<Row>(sql, values);

  /** Any change of a path, next to a step: a new step and a split part may be left out again. */
  function pathChange(stepId: string, on: string): PathChangeBody {
    const time = { spanDays: 1 + Math.floor(random() * 3), effortMinutes: Math.floor(random() * 8) * 60 };
    const title = `Extra ${Math.floor(random() * 1e6)}`;
    const place = pick(['before', 'after', 'beside'] as const) ?? 'after';
    return (
      pick<PathChangeBody>([
        { kind: 'pin', stepId, finishOn: random() < 0.3 ? null : on },
        { kind: 'retime', stepId, ...time },
        { kind: 'leave_out', stepId },
        { kind: 'add', stepId, title, does: random() < 0.5 ? 'make' : 'check', skill: 'write', place, ...time },
        { kind: 'split', stepId, title, place, ...time },
        { kind: 'give', stepId, personId: pick([null, scene.people.staff.personId, scene.people.freelance.personId]) ?? null },
      ]) ?? { kind: 'leave_out', stepId }
    );
  }

  /** A piece on the calendar whose first steps are somebody's: what else takes that one's hours, as around what goes out, moves them. */
  async function makeGiven(client: Scene['a'], wishOn: string | null = '2027-03-30'): Promise<void> {
    const pieceId = await makePiece(scene, client, wishOn);
    if (random() < 0.7) await signOffIn(scene).write(pieceId, 'Copy');
    for (const key of ['write', 'design'])
      await assignStep(scene.app, scene.people.lead, await stepOf(scene, pieceId, key), scene.people.staff.personId);
    if (wishOn === null) return;
    for (const { id, version } of await rows<{ id: string; version: number }>('select id, version from placements where piece_id = $1', [
      pieceId,
    ]))
      await movePlacement(scene.app, scene.people.lead, id, { on: wishOn, at: '10:00' }, version);
  }

  /** One random operation through a use case. Most are refused by some rule, as most clicks of a monkey would be. */
  async function operate(): Promise<boolean> {
    const { app, people } = scene;
    const viewer = people.lead;
    // every other one among those that came far: most that can go wrong goes wrong there
    const pieceOf = async (which: string) =>
      pick(
        await rows<{ id: string; client_id: string; version: number; content_version: number }>(
          `select id, client_id, version, content_version from pieces where ${which} order by id`,
        ),
      );
    const far = random() < 0.5 && (await pieceOf("stage in ('in_review', 'with_client', 'approved', 'scheduled')"));
    const piece = far || (await pieceOf('true'));
    if (!piece || random() < 0.03) {
      const wishOn = random() < 0.2 ? null : addDays(getDay('2027-03-10'), Math.floor(random() * 40));
      await makeGiven(random() < 0.5 ? scene.a : scene.b, wishOn);
      return true;
    }
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
    const obstacle = pick(await rows<{ id: string }>('select id from obstacles where settled_at is null order by id'));
    const duty = pick(await rows<{ id: string }>('select id from duties order by id'));
    const followUp = pick(await rows<{ id: string }>("select id from follow_ups where kind = 'follow_up' order by id"));
    const closure = pick(await rows<{ id: string }>('select id from client_closures order by id'));
    const on = addDays(getDay(app.clock.now().slice(0, 10)), Math.floor(random() * 30) - 2);
    const write = () => {
      const shared = { copy: pick(['One', 'Two', 'Three']) ?? '', disclosure: '', media: [] };
      return editContent(app, viewer, piece.id, { shared, channels: [] }, piece.content_version);
    };
    const send = async () => {
      const ready = await pieceOf("list = 'to_be_sent'");
      const dueOn = weekdayOf(getDay(on)) > 5 ? addDays(getDay(on), 2) : on;
      return ready && sendPacket(app, viewer, ready.client_id, { title: 'P', pieceIds: [ready.id], dueOn });
    };
    const say = async () =>
      packet &&
      decide(app, {
        packetId: packet.id,
        pieceId: packet.piece_id,
        contactId: packet.approver,
        verdict: random() < 0.8 ? 'approve' : 'changes',
        things: [{ text: 'R' }],
        versionId: null,
        onBehalf: null,
      });
    const sayAround = async () => {
      const channelId = pick(piece.client_id === scene.a.id ? scene.a.channelIds : scene.b.channelIds) ?? '';
      const [list] = await rows<{ version: number }>('select version from follow_up_lists where channel_id = $1', [channelId]);
      const doers = piece.client_id === scene.a.id ? [null, people.staff.personId, people.staff.personId] : [null, viewer.personId];
      const items = (['enter', 'follow_up'] as const).map((kind) => ({
        kind,
        words: kind,
        days: Math.floor(random() * 25), // up to weeks before: on days on which steps are made
        forDays: 1 + Math.floor(random() * 3),
        minutes: pick([60, 420, 480]) ?? 0,
        personId: pick(doers) ?? null,
      }));
      return putFollowUpList(app, viewer, channelId, { items: items.filter(() => random() < 0.8) }, list?.version ?? 0);
    };
    const putIn = async () => {
      const [due] = await rows<{ id: string; itemKey: string; meantAt: string }>(
        `select l.id, i ->> 'key' as "itemKey", l.publish_at as "meantAt" from placements l join follow_up_lists f on f.channel_id = l.channel_id
           cross join jsonb_array_elements(f.items) i where i ->> 'kind' = 'enter' and i ->> 'personId' is not null and l.state in ('pencilled', 'scheduled')
           and not exists (select 1 from follow_ups u where u.placement_id = l.id and u.meant_at = l.publish_at) order by l.publish_at limit 1`,
      );
      const { id = '', ...rest } = due ?? {};
      return (
        due &&
        enterPlacement(app, viewer, id, {
          itemKey: '',
          meantAt: '',
          ...rest,
          state: pick(['done', 'left_out'] as const) ?? 'done',
        })
      );
    };
    const choices: (() => Promise<{ ok: boolean } | undefined>)[] = [
      async () => step && assignStep(app, viewer, step.id, pick([null, people.staff.personId, people.freelance.personId]) ?? null),
      async () => step && beginStep(app, viewer, step.id),
      async () => step && handIn(app, viewer, step.id),
      async () => step && handIn(app, viewer, step.id),
      async () => step && handIn(app, viewer, step.id),
      async () => step && handIn(app, viewer, step.id),
      async () => step && handIn(app, viewer, step.id),
      async () => step && handIn(app, viewer, step.id),
      async () => step && sayRemaining(app, viewer, step.id, pick([null, 0, 30, 600, 2400]) ?? null),
      async () => step && handBack(app, viewer, step.id, 'Again'),
      async () => step && handBack(app, viewer, step.id, 'Once more'),
      async () => (random() < 0.5 ? leave : comeBack)(app, viewer, people.freelance.personId),
      async () => addTimeOff(app, viewer, people.staff.personId, { startOn: on, endOn: addDays(getDay(on), 2), part: pick([0.5, 1]) ?? 1 }),
      async () => {
        const [off] = await rows<{ id: string }>('select id from time_off order by start_on limit 1');
        return off && removeTimeOff(app, viewer, people.staff.personId, off.id);
      },
      async () => step && changePiecePath(app, viewer, piece.id, [pathChange(step.id, on)]),
      async () => step && changePiecePath(app, viewer, piece.id, [pathChange(step.id, on), pathChange(step.id, on)]),
      async () =>
        raiseObstacle(app, viewer, piece.id, {
          words: 'W',
          whose: 'client',
          stepId: random() < 0.7 ? (step?.id ?? null) : null,
          untilOn: random() < 0.5 ? null : on,
        }),
      async () => obstacle && settleObstacle(app, viewer, obstacle.id, ''),
      write, // twice as often: much begins with it
      write,
      async () => editPiece(app, viewer, piece.id, { wishOn: random() < 0.3 ? null : on }, piece.version),
      async () => editPiece(app, viewer, piece.id, { shelved: random() < 0.2 }, piece.version),
      async () => placement && movePlacement(app, viewer, placement.id, { on: random() < 0.2 ? null : on }, placement.version),
      async () =>
        placement &&
        (random() < 0.2 ? cancelPlacement(app, viewer, placement.id) : markOut(app, viewer, placement.id, { address: 'https://x.test/1' })),
      async () => addPlacement(app, viewer, piece.id, pick(piece.client_id === scene.a.id ? scene.a.channelIds : scene.b.channelIds) ?? ''),
      send,
      send,
      send,
      say,
      say,
      async () => remark && settleRemark(app, viewer, remark.id, { state: 'settled' }),
      async () => remark && settleRemark(app, viewer, remark.id, { state: 'answered', answer: 'It stays' }),
      async () => {
        const kind = pick(['any', 'all', 'agency', 'agency'] as const) ?? 'any';
        const policy = kind === 'agency' ? { kind, personId: viewer.personId } : { kind };
        return editClient(app, viewer, piece.client_id, { policy }, await clientVersion(piece.client_id));
      },
      async () => {
        // who signs off changes: what waited for them is reckoned anew
        const contacts = await rows<ContactBody>(
          `select id, name, email, can_ask as "canAsk", can_view as "canView", can_sign_off as "canSignOff", weight from contacts
           where client_id = $1 and archived_at is null order by position`,
          [piece.client_id],
        );
        const changed = contacts.map((contact) => ({ ...contact, canSignOff: random() < 0.7 }));
        return editClient(app, viewer, piece.client_id, { contacts: changed }, await clientVersion(piece.client_id));
      },
      async () => {
        const weeklyMinutes =
          pick([
            [480, 480, 480, 480, 480, 0, 0],
            [240, 240, 0, 480, 480, 0, 0],
          ]) ?? [];
        const [person] = await rows<{ version: number }>('select version from people where id = $1', [people.staff.personId]);
        return editPerson(app, viewer, people.staff.personId, { weeklyMinutes }, person?.version ?? 0);
      },
      async () => approveForClient(app, viewer, piece.id),
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
      // what is not a step of a piece takes hours as well
      async () =>
        duty && (random() < 0.3 ? endDuty(app, viewer, duty.id) : markDuty(app, viewer, duty.id, { on, mark: 'done', ticks: [] })),
      async () =>
        addDuty(app, viewer, {
          clientId: random() < 0.5 ? piece.client_id : null,
          title: 'Look after it',
          remark: '',
          checklist: [],
          rule: pick([null, 'FREQ=DAILY', 'FREQ=WEEKLY;BYDAY=TU,TH']) ?? null,
          fromOn: on,
          untilOn: null,
          leadDays: 0,
          leadId: pick([people.staff.personId, viewer.personId]) ?? viewer.personId,
          secondId: null,
          minutes: pick([0, 30, 240]) ?? 0,
          piece: null,
        }),
      sayAround,
      sayAround,
      putIn,
      putIn,
      async () => followUp && settleFollowUp(app, viewer, followUp.id, 'done'),
      async () => followUp && settleFollowUp(app, viewer, followUp.id, pick(['done', 'left_out', 'open'] as const) ?? 'done'),
      async () => {
        app.clock.set(
          Temporal.Instant.from(app.clock.now())
            .add({ hours: Math.floor(random() * 10) })
            .toString(),
        );
        // what the clock alone changes is brought up by its job; everything else by the operation itself
        return app.write(async (tx, now) => ok(await replanOpen(tx, now)));
      },
    ];
    const chosen = pick(choices);
    lastDone = String(chosen).replaceAll(/\s+/g, ' ').slice(0, 200);
    return (await chosen?.())?.ok ?? false;
  }

  /** As `toEqual`, which takes its time over thousands of rows and is asked only where they are not the very same. */
  const expectSame = (stored: unknown, reckoned: unknown) => {
    if (!isDeepStrictEqual(stored, reckoned)) expect(stored).toEqual(reckoned);
  };

  /** Compares all that is stored of every piece with what follows from the facts now. Nothing is planned anew before it looks. */
  async function expectStoredIsReckoned(): Promise<void> {
    const pieces = await rows<Record<string, unknown> & { id: string; list: string | null }>(
      'select id, stage, list, aim_on, aim_at, danger, slack_days, late_from_on, earliest_publish_on, packet_due_on, progress from pieces order by id',
    );
    const ids = pieces.map((piece) => piece.id);
    const states = await computeStates(scene.app.manager, ids, scene.app.clock.now());
    const milliseconds = (value: unknown) => (typeof value === 'string' ? Temporal.Instant.from(value).epochMilliseconds : null);
    // a piece that is not open keeps what it was when it was closed: only that it is closed counts
    const open = new Set(states.filter((state) => state.list !== null).map((state) => state.id));
    expectSame(
      pieces.map(({ id, list }) => [id, list]),
      states.map(({ id, list }) => [id, list]),
    );
    expectSame(
      pieces.filter(({ id }) => open.has(id)).map((row) => ({ ...row, aim_at: milliseconds(row['aim_at']) })),
      states.filter(({ id }) => open.has(id)).map((state) => ({ ...storedPiece(state), aim_at: milliseconds(state.aimAt) })),
    );
    const steps = await rows<{ id: string }>(
      'select id, latest_start_on, latest_finish_on, earliest_start_on, earliest_finish_on, slack_days, danger from steps where piece_id = any($1) order by id',
      [[...open]],
    );
    const reckoned = states.filter(({ id }) => open.has(id)).flatMap(storedSteps);
    expectSame(
      steps,
      reckoned.sort((a, b) => a.id.localeCompare(b.id)),
    );
    const placements = await rows<{ id: string; state: string }>('select id, state from placements where piece_id = any($1)', [[...open]]);
    const states2 = Object.assign({}, ...states.filter(({ id }) => open.has(id)).map((state) => state.placements)) as Record<
      string,
      string
    >; // placement id to state
    expectSame(Object.fromEntries(placements.map((placement) => [placement.id, placement.state])), states2);
  }

  async function expectPredictionIsReckoned(): Promise<void> {
    const open = await loadOpenSteps(scene.app.manager);
    const book = await loadCalendars(scene.app.manager, scene.app.clock.now());
    const predicted = predictSteps(open, book, await loadOtherHours(scene.app.manager, book));
    const predictions = await rows<{ id: string }>(
      'select id, predicted_start_on, predicted_finish_on, behind_steps from steps order by id',
    );
    expectSame(
      predictions,
      predictions.map(({ id }) => storedPrediction(id, predicted.get(id))),
    );
  }

  /** So many operations are checked, each before anything else happens. ZESTING_OPERATIONS asks for more. */
  const OPERATIONS = Number(process.env['ZESTING_OPERATIONS'] ?? 200);

  it('equals a full recompute after each step of a piece’s way to its end and beyond', async () => {
    const { app, people } = scene;
    app.clock.set(NOW);
    getValue(await app.write(async (tx, now) => ok(await replanOpen(tx, now))));
    await rows('update clients set policy = $2 where id = $1', [scene.a.id, JSON.stringify({ kind: 'any' })]);
    await rows('update contacts set can_sign_off = true where client_id = $1', [scene.a.id]);
    getValue(await app.write(async (tx, now) => ok(await replanOpen(tx, now))));
    const way = signOffIn(scene);
    const pieceId = await way.ready(scene.a);
    await expectStoredIsReckoned();
    const packetId = getValue(await way.send(scene.a, [pieceId]));
    await expectStoredIsReckoned();
    getValue(await way.say(packetId, pieceId, 'approve'));
    await expectStoredIsReckoned();
    await way.write(pieceId, 'Edited after sign-off', 'Feed'); // voids the shared part
    await expectStoredIsReckoned();
    await way.write(pieceId, 'Copy', 'Feed'); // and back
    await expectStoredIsReckoned();
    const [feed, blog] = (await rows<{ id: string }>('select id from placements where piece_id = $1 order by channel_id = $2 desc', [
      pieceId,
      scene.a.channelIds[0],
    ])) as [{ id: string }, { id: string }]; // one on each of the client's channels
    getValue(await movePlacement(app, people.lead, feed.id, { on: '2027-03-02', at: '08:00' }, 1));
    await expectStoredIsReckoned();
    getValue(await cancelPlacement(app, people.lead, blog.id));
    await expectStoredIsReckoned();
    app.clock.set('2027-03-02T10:00:00Z');
    getValue(await app.write(async (tx, now) => ok(await replanOpen(tx, now))));
    getValue(await markOut(app, people.lead, feed.id, { address: 'https://x.test/1' }));
    await expectStoredIsReckoned();
    expect((await rows<{ stage: string }>('select stage from pieces where id = $1', [pieceId]))[0]?.stage).toBe('published');
    getValue(await addPlacement(app, people.lead, pieceId, scene.a.channelIds[1] ?? '')); // opens it again
    await expectStoredIsReckoned();
    getValue(
      await editClient(
        app,
        people.lead,
        scene.a.id,
        { policy: { kind: 'agency', personId: people.lead.personId } },
        await clientVersion(scene.a.id),
      ),
    );
    await expectStoredIsReckoned();
    const own = await way.ready(scene.a);
    getValue(await approveForClient(app, people.lead, own));
    await expectStoredIsReckoned();
  });

  it('equals a full recompute after all that happens to the people who have steps', async () => {
    const { app, people } = scene;
    const lead = people.lead;
    app.clock.set('2027-03-03T09:00:00Z');
    getValue(await editClient(app, lead, scene.a.id, { policy: { kind: 'any' } }, await clientVersion(scene.a.id)));
    getValue(await app.write(async (tx, now) => ok(await replanOpen(tx, now))));
    const pieceId = await makePiece(scene, scene.a, '2027-03-15');
    await expectStoredIsReckoned();
    getValue(await editPiece(app, lead, pieceId, { wishOn: '2027-03-16' }, 1));
    await expectStoredIsReckoned();
    const write = await stepOf(scene, pieceId, 'write');
    getValue(await assignStep(app, lead, write, people.staff.personId));
    getValue(await assignStep(app, lead, await stepOf(scene, pieceId, 'design'), people.freelance.personId));
    await expectStoredIsReckoned();
    getValue(await addTimeOff(app, lead, people.staff.personId, { startOn: '2027-03-03', endOn: '2027-03-05', part: 1 }));
    await expectStoredIsReckoned();
    const [off] = await rows<{ id: string }>('select id from time_off');
    getValue(await removeTimeOff(app, lead, people.staff.personId, off?.id ?? ''));
    await expectStoredIsReckoned();
    const absences = [{ uid: '1', startOn: '2027-03-04', endOn: '2027-03-08', part: 1, note: '' }];
    getValue(await importTimeOff(app, lead, people.staff.personId, absences));
    await expectStoredIsReckoned();
    const [freelance] = await rows<{ version: number }>('select version from people where id = $1', [people.freelance.personId]);
    getValue(await editPerson(app, lead, people.freelance.personId, { weeklyMinutes: [0, 0, 480, 480, 0, 0, 0] }, freelance?.version ?? 0));
    await expectStoredIsReckoned();
    getValue(await leave(app, lead, people.freelance.personId));
    await expectStoredIsReckoned();
    getValue(await comeBack(app, lead, people.freelance.personId));
    await expectStoredIsReckoned();
    // a week without hours spoils the plan of what is open, and of nothing that is finished
    getValue(await editContent(app, lead, pieceId, { shared: { copy: 'Words', disclosure: '', media: [] }, channels: [] }, 1));
    getValue(await beginStep(app, lead, write));
    await expectStoredIsReckoned();
    getValue(await handIn(app, lead, write));
    getValue(await handIn(app, lead, await stepOf(scene, pieceId, 'design')));
    getValue(await handBack(app, lead, await stepOf(scene, pieceId, 'check'), 'Once more'));
    await expectStoredIsReckoned();
    const [staff] = await rows<{ version: number }>('select version from people where id = $1', [people.staff.personId]);
    getValue(await editPerson(app, lead, people.staff.personId, { weeklyMinutes: [0, 0, 0, 0, 0, 0, 0] }, staff?.version ?? 0));
    await expectStoredIsReckoned();
    expect((await rows<{ danger: string }>('select danger from pieces where id = $1', [pieceId]))[0]?.danger).toBe('fine');
    const closure = { clientId: scene.a.id, kind: 'closure', name: 'Closed', startOn: '2027-03-12', endOn: '2027-03-15' } as const;
    const markerId = getValue(await addMarker(app, lead, closure));
    await expectStoredIsReckoned();
    getValue(await removeMarker(app, lead, markerId));
    await expectStoredIsReckoned();
    await rows("update people set weekly_minutes = '{480,480,480,480,480,0,0}' where id = any($1)", [
      [people.staff.personId, people.freelance.personId],
    ]);
    await rows('delete from time_off');
  });

  it(
    'equals a full recompute after each of many random operations, and the prediction once it has followed',
    async () => {
      scene.app.clock.set(NOW);
      getValue(await scene.app.write(async (tx, now) => ok(await replanOpen(tx, now))));
      for (let made = 0; made < 10; made++) await makeGiven(made % 2 ? scene.a : scene.b);
      for (let made = 0; made < 4; made++) await signOffIn(scene).ready(made % 2 ? scene.a : scene.b);
      let done = 0;
      for (let count = 0; done < OPERATIONS; count++) {
        if (!(await operate())) continue;
        done++;
        try {
          await expectStoredIsReckoned();
        } catch (error) {
          throw new Error(`after operation ${count}, the ${done}th that was done: ${lastDone}`, { cause: error });
        }
        // what the change can reach is predicted anew: the same as the whole
        getValue(await scene.app.write(async (tx, now) => ok(await predict(tx, now, Infinity))));
        await expectPredictionIsReckoned();
        if (done % 25 === 0) await expectStoredIsReckoned();
      }
      expect((await rows('select 1 from pieces where list is not null')).length).toBeGreaterThan(5);
    },
    Math.max(2_400_000, OPERATIONS * 5_000),
  );

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
