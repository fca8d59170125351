import { getValue } from '@zesting/core';
import { makePiece, makeScene, stepOf, type Scene } from '../../../test-support/scene.js';
import { signOffIn } from '../../../test-support/sign-off.js';
import { assignStep, editPiece, handIn } from '../production/index.js';
import { sendReminders, sendRoundUps } from './index.js';

interface Mail {
  readonly to: string;
  readonly subject: string;
  readonly lists?: readonly { readonly title: string; readonly items: readonly { readonly text: string; readonly address: string }[] }[];
}

describe('messages', () => {
  let scene: Scene;
  let way: ReturnType<typeof signOffIn>;
  beforeEach(async () => {
    scene = await makeScene();
    way = signOffIn(scene);
    await take();
  });
  afterEach(() => scene.close());

  /** The mails in the outbox since the last look; nobody sends them here. */
  async function take(): Promise<Mail[]> {
    const rows = await scene.app.read<{ payload: Mail }>(
      `delete from graphile_worker._private_jobs j using graphile_worker._private_tasks t
       where t.id = j.task_id and t.identifier = 'mail_send' returning j.payload`,
    );
    return (rows as unknown as [{ payload: Mail }[], number])[0].map((row) => row.payload); // what TypeORM answers to a delete
  }
  const at = (now: string) => scene.app.clock.set(now);
  const setRhythm = (role: 'staff' | 'manager', rhythm: string, time = '08:00') =>
    scene.app.read('update people set round_up = $2, round_up_at = $3 where id = $1', [scene.people[role].personId, rhythm, time]);
  const assign = async (pieceId: string, key: string, role: 'staff' | 'freelance' | null) =>
    getValue(await assignStep(scene.app, scene.people.lead, await stepOf(scene, pieceId, key), role && scene.people[role].personId));

  it('of one hand-off go out as one, with links and the receiver’s work in the order to do it', async () => {
    const [later, sooner] = [await makePiece(scene, scene.a, '2027-04-20'), await makePiece(scene, scene.a, '2027-03-16')];
    for (const pieceId of [later, sooner]) await assign(pieceId, 'write', 'staff');
    expect(await take()).toEqual([]); // a moment of quiet first
    at('2027-03-01T09:00:30Z');
    await sendRoundUps(scene.app);
    const [mail, ...more] = await take();
    expect(more).toEqual([]);
    expect(mail?.to).toBe('staff@agency.test');
    const [news, work] = mail?.lists ?? [];
    expect(news?.items.map((item) => item.address)).toEqual([later, sooner].map((id) => scene.app.address(`/pieces/${id}`)));
    expect(work?.items.map((item) => item.address)).toEqual([sooner, later].map((id) => scene.app.address(`/pieces/${id}`)));
    await sendRoundUps(scene.app);
    expect(await take()).toEqual([]);
  });

  it('go out hourly or daily where the person wants that, in the person’s own zone', async () => {
    await setRhythm('staff', 'hourly');
    await assign(await makePiece(scene, scene.a), 'write', 'staff');
    at('2027-03-01T09:59:00Z');
    await sendRoundUps(scene.app);
    expect(await take()).toEqual([]);
    at('2027-03-01T10:00:00Z');
    await sendRoundUps(scene.app);
    expect(await take()).toHaveLength(1);
    await setRhythm('staff', 'daily', '07:30');
    await scene.app.read("update people set zone = 'America/New_York' where id = $1", [scene.people.staff.personId]);
    await assign(await makePiece(scene, scene.a), 'write', 'staff');
    at('2027-03-01T12:29:00Z');
    await sendRoundUps(scene.app);
    expect(await take()).toEqual([]);
    at('2027-03-01T12:30:00Z'); // 07:30 in New York
    await sendRoundUps(scene.app);
    expect(await take()).toHaveLength(1);
  });

  it('cancel out when what they tell was undone before they went', async () => {
    await setRhythm('staff', 'hourly');
    const pieceId = await makePiece(scene, scene.a, '2027-04-06');
    await assign(pieceId, 'write', 'staff');
    await assign(pieceId, 'write', null);
    const edit = async (wishOn: string) => {
      const [row] = await scene.app.read<{ version: number }>('select version from pieces where id = $1', [pieceId]);
      getValue(await editPiece(scene.app, scene.people.lead, pieceId, { wishOn }, row?.version ?? 0));
    };
    await assign(pieceId, 'design', 'staff');
    at('2027-03-01T10:00:00Z');
    await sendRoundUps(scene.app);
    await take();
    await edit('2027-04-08');
    await edit('2027-04-13');
    const waiting = await scene.app.read<{ text: string }>('select text from notices where sent_at is null and person_id = $1', [
      scene.people.staff.personId,
    ]);
    expect(waiting).toHaveLength(1); // two moves are one
    await edit('2027-04-06');
    at('2027-03-01T11:00:00Z');
    await sendRoundUps(scene.app);
    expect((await take()).filter((mail) => mail.to === 'staff@agency.test')).toEqual([]);
  });

  it('remind a contact half-way and on the due day, then tell the manager, by the client’s working days', async () => {
    const packetId = getValue(await way.send(scene.a, [await way.ready(scene.a)], '2027-03-08'));
    await take();
    const remind = async (now: string) => {
      at(now);
      await sendReminders(scene.app);
      await sendRoundUps(scene.app);
      at(now.replace(/:00Z/, ':40Z'));
      await sendRoundUps(scene.app);
      return (await take()).map((mail) => `${mail.to}: ${mail.subject}`);
    };
    expect(await remind('2027-03-02T09:00:00Z')).toEqual([]);
    // Tuesday to Monday are five working days: half-way is after three, on Thursday
    expect(await remind('2027-03-04T07:30:00Z')).toEqual([]); // too early in the day
    expect(await remind('2027-03-04T09:00:00Z')).toEqual(['contact@aaa.test: A reminder: Packet: an answer is due by Monday 8 March 2027']);
    expect(await remind('2027-03-04T11:00:00Z')).toEqual([]); // once
    expect(await remind('2027-03-06T09:00:00Z')).toEqual([]); // a Saturday
    expect(await remind('2027-03-08T09:00:00Z')).toEqual(['contact@aaa.test: A reminder: Packet: an answer is due today']);
    expect(await remind('2027-03-09T09:00:00Z')).toEqual(['manager@agency.test: No answer yet: Packet']);
    expect(packetId).not.toBe('');
  });

  it('remind nobody once the word is given, and bundle what waits for one contact', async () => {
    const [one, two] = [await way.ready(scene.a), await way.ready(scene.a)];
    const first = getValue(await way.send(scene.a, [one], '2027-03-08'));
    getValue(await way.send(scene.a, [two], '2027-03-08'));
    await take();
    at('2027-03-04T09:00:00Z');
    await sendReminders(scene.app);
    const [bundled, ...more] = await take();
    expect([bundled?.subject, bundled?.lists?.[0]?.items.length, more]).toEqual(['A reminder: 2 packets wait for your word', 2, []]);
    getValue(await way.say(first, one, 'approve'));
    at('2027-03-08T09:00:00Z');
    await sendRoundUps(scene.app); // what the managers hear of the word
    await take();
    await sendReminders(scene.app);
    expect((await take()).map((mail) => mail.subject)).toEqual(['A reminder: Packet: an answer is due today']);
  });

  it('remind a doer of a step at hand, and stop with the hand-in', async () => {
    const pieceId = await makePiece(scene, scene.a, '2027-03-16');
    await way.write(pieceId, 'Copy');
    await assign(pieceId, 'write', 'staff');
    await assign(pieceId, 'design', 'staff'); // not at hand yet: nobody is reminded of it
    at('2027-03-01T09:01:00Z');
    await sendRoundUps(scene.app);
    await take();
    const [step] = await scene.app.read<{ due: string }>(
      "select latest_finish_on as due from steps where piece_id = $1 and key = 'write'",
      [pieceId],
    );
    at(`${step?.due}T09:00:00Z`);
    await sendReminders(scene.app);
    const waiting = () =>
      scene.app.read<{ heading: string }>("select heading from notices where sent_at is null and heading like 'A reminder%'");
    expect(await waiting()).toEqual([{ heading: 'A reminder: Write, A piece' }]);
    getValue(await handIn(scene.app, scene.people.staff, await stepOf(scene, pieceId, 'write')));
    expect(await waiting()).toEqual([]); // what waited is taken back: the step is done
    await sendReminders(scene.app);
    expect((await waiting()).filter((row) => row.heading.includes('Write'))).toEqual([]);
  });
});
