import type { InterviewShape, InterviewsShape, QuestionSetsShape, RoomShape } from '@zesting/contract';
import { makePlanScene, type PlanScene } from '../../../test-support/plan-scene.js';
import { callerAs, callerByLink, type Caller } from '../../../test-support/scene.js';
import { sendReminders } from '../notices/index.js';

describe('questions to who knows', () => {
  let plan: PlanScene;
  let contact: Caller;
  let ideaId = '';
  beforeAll(async () => {
    plan = await makePlanScene();
    contact = await callerByLink(plan.scene, 'room', plan.scene.a.contactId);
  });
  afterAll(() => plan.scene.close());
  beforeEach(async () => {
    for (const table of ['interview_questions', 'interviews', 'question_sets', 'notices', 'reminders'])
      await plan.scene.app.read(`delete from ${table}`);
    await plan.scene.app.read("delete from graphile_worker._private_jobs where payload::text like '%mail.zesting%'");
    await plan.reset();
    ideaId = await plan.caught({ title: 'How a bell is cast' });
  });

  const room = `/api/room/`;
  const ask = async (body: object = {}) => {
    const { status, body: made } = await plan.manager.call('POST', plan.of('interviews'), {
      body: {
        title: 'Casting',
        questions: ['What can go wrong?', ' Who taught you? '],
        contactId: plan.scene.a.contactId,
        dueOn: '2027-03-05',
        ideaId,
        ...body,
      },
    });
    expect({ status, made }).toMatchObject({ status: 201 });
    return made['interviewId'] as string;
  };
  const one = async (id: string) => (await plan.manager.call('GET', `/api/interviews/${id}`)).body as unknown as InterviewShape; // as the contract has it
  const list = async (query = '') => (await plan.manager.call('GET', `/api/interviews?${query}`)).body as unknown as InterviewsShape;
  const inRoom = async () => ((await contact.call('GET', `${room}${plan.scene.a.contactId}`)).body as unknown as RoomShape).interviews;
  const answer = (by: Caller, questionId: string, text: string, version = 1) =>
    by.call('PUT', `${by === contact ? `${room}${plan.scene.a.contactId}` : '/api'}/questions/${questionId}/answer`, {
      body: { text },
      headers: { 'If-Match': `"${version}"` },
    });
  const change = (id: string, body: object, version = 1) =>
    plan.manager.call('PATCH', `/api/interviews/${id}`, { body, headers: { 'If-Match': `"${version}"` } });
  const setState = (id: string, state: string) => plan.manager.call('POST', `/api/interviews/${id}/state`, { body: { state } });
  const mails = async () =>
    (
      await plan.scene.app.read<{ subject: string }>(
        "select payload ->> 'subject' as subject from graphile_worker._private_jobs j join graphile_worker._private_tasks t on t.id = j.task_id where t.identifier = 'mail_send' order by j.id",
      )
    ).map(({ subject }) => subject);
  const told = () => plan.scene.app.read('select heading, text from notices order by id');

  it('are put to a contact, who answers in the room and sees them until they are closed', async () => {
    const id = await ask();
    const [first] = await inRoom();
    expect(first).toMatchObject({ title: 'Casting', dueOn: '2027-03-05', isPastDue: false });
    expect(first?.questions.map(({ question }) => question)).toEqual(['What can go wrong?', 'Who taught you?']);
    const [wrong, taught] = first?.questions.map((question) => question.id) ?? [];
    expect((await answer(contact, wrong ?? '', ' The clay cracks. ')).status).toBe(204);
    expect(await one(id)).toMatchObject({
      about: { kind: 'idea', title: 'How a bell is cast' },
      answerer: 'Contact AAA',
      askedBy: 'Max',
      answered: 1,
      questions: [
        {
          answer: 'The clay cracks.',
          answeredBy: 'Contact AAA',
          answeredAt: expect.stringMatching(/^2027-03-01T09:00:0/) as string,
          version: 2,
        },
        { answer: '' },
      ],
    });
    expect(await told()).toEqual([{ heading: 'Answered: Casting', text: 'Contact AAA has answered 1 of 2 questions in “Casting”.' }]);
    // both answered: one notice, that says so
    await answer(contact, taught ?? '', 'My aunt.');
    expect(await told()).toEqual([{ heading: 'Answered: Casting', text: 'Contact AAA has answered 2 of 2 questions in “Casting”.' }]);
    expect(await inRoom()).toHaveLength(1);
    expect((await setState(id, 'closed')).status).toBe(204);
    expect(await inRoom()).toEqual([]);
    expect((await answer(contact, taught ?? '', 'My uncle.', 2)).body['code']).toBe('interview.closed');
    await setState(id, 'open');
    expect(await inRoom()).toHaveLength(1);
  });

  it('tell nobody of an answer that was taken back before anybody heard', async () => {
    const id = await ask();
    const [first] = (await one(id)).questions;
    await answer(contact, first?.id ?? '', 'Nothing.');
    expect(await told()).toHaveLength(1);
    await answer(contact, first?.id ?? '', '  ', 2);
    expect(await told()).toEqual([]);
    expect((await one(id)).questions[0]).toMatchObject({ answer: '', answeredBy: null, answeredAt: null });
  });

  it('are answered by the team for an expert, and nobody is written to', async () => {
    const id = await ask({ contactId: null, answerer: ' The founder ' });
    expect(await mails()).toEqual([]);
    const [first] = (await one(id)).questions;
    await answer(plan.manager, first?.id ?? '', 'It takes a day.');
    expect(await one(id)).toMatchObject({ answerer: 'The founder', answered: 1, questions: [{ answeredBy: 'Max' }, {}] });
    expect(await told()).toEqual([]);
    expect((await answer(contact, first?.id ?? '', 'No.', 2)).status).toBe(404);
  });

  it('are no two people’s at once: the later of two answers is refused, and nothing is lost', async () => {
    const id = await ask();
    const [first] = (await one(id)).questions;
    const both = await Promise.all([answer(contact, first?.id ?? '', 'A'), answer(plan.manager, first?.id ?? '', 'B')]);
    expect(both.map(({ status }) => status).sort()).toEqual([204, 412]);
    const kept = (await one(id)).questions[0];
    expect(kept?.answer).toBe(both[0].status === 204 ? 'A' : 'B');
  });

  it('answered both at once are counted both: what is told says two of two', async () => {
    for (let round = 0; round < 5; round++) {
      await plan.scene.app.read('delete from notices');
      const [first, second] = (await one(await ask())).questions;
      await Promise.all([answer(contact, first?.id ?? '', 'A'), answer(contact, second?.id ?? '', 'B')]);
      expect(await told()).toEqual([{ heading: 'Answered: Casting', text: 'Contact AAA has answered 2 of 2 questions in “Casting”.' }]);
    }
  });

  it('grow: more is asked, which opens them and writes to the contact again, up to thirty', async () => {
    const id = await ask();
    await setState(id, 'closed');
    expect((await change(id, { questions: ['And then?'], dueOn: null }, 2)).status).toBe(204);
    const found = await one(id);
    expect(found).toMatchObject({ closedAt: null, dueOn: null, version: 3 });
    expect(found.questions.map(({ question }) => question)).toEqual(['What can go wrong?', 'Who taught you?', 'And then?']);
    expect(await mails()).toEqual(['2 questions for you: Casting', 'A question for you: Casting']);
    expect((await change(id, { title: 'Other' }, 2)).status).toBe(412);
    expect((await change(id, { questions: Array.from({ length: 28 }, () => 'Q') }, 3)).body['code']).toBe('interview.too_many');
    expect((await change(id, { questions: Array.from({ length: 27 }, () => 'Q') }, 3)).status).toBe(204);
  });

  it('go from the idea into the brief of the piece it becomes, where its makers read them', async () => {
    await ask();
    const ruleId = await plan.add({ formatId: plan.formatId });
    const [filled] = await plan.fill({ ruleId, on: '2027-03-16', ideaId });
    const pieceId = filled?.pieceId ?? '';
    await ask({ ideaId: null, pieceId, title: 'More on it', contactId: null });
    const staff = await callerAs(plan.scene, 'staff');
    const read = (await staff.call('GET', `/api/pieces/${pieceId}/interviews`)).body as unknown as InterviewShape[];
    expect(read.map(({ title, about }) => [title, about])).toEqual([
      ['Casting', { kind: 'piece', id: pieceId, title: 'How a bell is cast' }],
      ['More on it', { kind: 'piece', id: pieceId, title: 'How a bell is cast' }],
    ]);
    const ofIdea = (await plan.manager.call('GET', `/api/ideas/${ideaId}/interviews`)).body as unknown as InterviewShape[];
    expect(ofIdea.map(({ title }) => title)).toEqual(['Casting']);
  });

  it('are about one thing, of the client', async () => {
    const { body } = await plan.manager.call('POST', plan.of('interviews'), {
      body: { title: 'T', questions: ['Q'], contactId: null, dueOn: null, ideaId, pieceId: ideaId },
    });
    expect(body['code']).toBe('interview.about_two');
    await plan.manager.call('POST', `/api/ideas/${ideaId}/state`, { body: { state: 'dropped' } });
    const dropped = await plan.manager.call('POST', plan.of('interviews'), {
      body: { title: 'T', questions: ['Q'], contactId: null, dueOn: null, ideaId },
    });
    expect(dropped.body['code']).toBe('idea.unknown');
  });

  it('are listed by their day, the closed apart', async () => {
    const later = await ask({ title: 'Later', dueOn: '2027-03-09' });
    await ask({ title: 'No day', dueOn: null });
    await ask({ title: 'Sooner', dueOn: '2027-03-02' });
    plan.scene.app.clock.set('2027-03-03T09:00:00Z');
    const found = await list();
    expect(found.interviews.map(({ title, isPastDue }) => [title, isPastDue])).toEqual([
      ['Sooner', true],
      ['Later', false],
      ['No day', false],
    ]);
    await setState(later, 'closed');
    expect((await list('asked=closed')).interviews.map(({ title }) => title)).toEqual(['Later']);
    expect((await list()).counts).toEqual({ open: 2, closed: 1 });
    expect((await plan.manager.call('GET', `/api/interviews?clientId=${plan.scene.b.id}`)).status).toBe(404);
  });

  it('are reminded of half-way, on the day, and past it to who manages; not of what is answered', async () => {
    const id = await ask({ dueOn: '2027-03-05' });
    const done = await ask({ title: 'Done', dueOn: '2027-03-05', questions: ['Q'] });
    await answer(contact, (await one(done)).questions[0]?.id ?? '', 'A');
    await plan.scene.app.read('delete from notices');
    for (const at of [
      '2027-03-01T12:00:00Z',
      '2027-03-03T12:00:00Z',
      '2027-03-03T13:00:00Z',
      '2027-03-05T12:00:00Z',
      '2027-03-08T12:00:00Z',
    ]) {
      plan.scene.app.clock.set(at);
      await sendReminders(plan.scene.app);
    }
    expect((await mails()).slice(2)).toEqual([
      'A reminder: Casting: 2 questions left, by Friday 5 March 2027',
      'A reminder: Casting: 2 questions left, today',
    ]);
    expect(await told()).toEqual([
      {
        heading: 'Not answered: Casting',
        text: 'Contact AAA has 2 questions left in “Casting”, which would have helped by Friday 5 March 2027.',
      },
    ]);
    expect((await one(id)).isPastDue).toBe(true);
  });

  it('are kept in sets; those for the treatment of what is asked about come first', async () => {
    const add = async (body: object) => {
      const { status, body: made } = await plan.manager.call('POST', '/api/question-sets', {
        body: { clientId: null, treatment: '', questions: ['Q'], ...body },
      });
      expect(status).toBe(201);
      return made['setId'] as string;
    };
    await add({ title: 'For all' });
    await add({ title: 'Own', clientId: plan.scene.a.id });
    const story = await add({ title: 'A story', treatment: 'story' });
    const craft = plan.pillars[0]?.id;
    const { body: topics } = await plan.manager.call('POST', plan.of('topics'), {
      body: { pillarId: craft, parentId: null, names: ['Wood'] },
    });
    await plan.manager.call('PUT', plan.of('treatments'), { body: { names: ['Story'] }, headers: { 'If-Match': '"1"' } });
    const { status } = await plan.manager.call('PUT', `/api/ideas/${ideaId}/subject`, {
      body: { topicId: (topics['topicIds'] as string[])[0], treatment: 'Story' },
    });
    expect(status).toBe(204);
    const sets = async (query: string) =>
      (await plan.manager.call('GET', `/api/question-sets?${query}`)).body as unknown as QuestionSetsShape;
    expect((await sets(`clientId=${plan.scene.a.id}&ideaId=${ideaId}`)).sets.map(({ title, fits }) => [title, fits])).toEqual([
      ['A story', true],
      ['Own', false],
      ['For all', false],
    ]);
    const edit = (version: number) =>
      plan.manager.call('PUT', `/api/question-sets/${story}`, {
        body: { title: 'Its story', treatment: 'Story', questions: ['One', ' Two '] },
        headers: { 'If-Match': `"${version}"` },
      });
    expect((await edit(1)).status).toBe(204);
    expect((await edit(1)).status).toBe(412);
    expect((await sets('')).sets.find(({ id }) => id === story)).toMatchObject({
      title: 'Its story',
      questions: ['One', 'Two'],
      version: 2,
    });
    await plan.manager.call('DELETE', `/api/question-sets/${story}`);
    expect((await sets('')).archived.map(({ id }) => id)).toEqual([story]);
    await plan.manager.call('POST', `/api/question-sets/${story}/restore`);
    expect((await sets('')).archived).toEqual([]);
  });

  it('a place in a list that is no number is refused with a clear error', async () => {
    for (const path of ['interviews?', 'ideas?', `clients/${plan.scene.a.id}/channels/${plan.scene.a.id}/look?`]) {
      const { status, body } = await plan.manager.call('GET', `/api/${path}after=x`);
      expect([path, status, body['errors']]).toEqual([path, 400, { after: ['isOfItsKind'] }]);
    }
  });
});
