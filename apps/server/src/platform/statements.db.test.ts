import { randomUUID } from 'node:crypto';
import { getValue } from '@zesting/core';
import { callerAs, callerByLink, makePiece, makeScene, stepOf, type Caller, type Scene } from '../../test-support/scene.js';
import { Jobs } from './jobs/jobs.js';
import { submitRequest } from '../features/intake/index.js';
import { assignStep, editContent, handIn } from '../features/production/index.js';
import { sendPacket } from '../features/sign-off/index.js';
import { addRule, catchIdea } from '../features/plan/index.js';
import { addNote } from '../features/team-notes/index.js';

const rule = (channelId: string) => ({
  channelId,
  rule: 'FREQ=WEEKLY;BYDAY=TU',
  at: '09:00',
  fromOn: '2027-03-02',
  untilOn: null,
  skipsHolidays: false,
  pillarId: null,
  formatId: null,
});

/** The most statements that any list may ask, signing in and access included. */
const MOST = 17;

describe('the statements of a list', () => {
  let scene: Scene;
  let pieceId = '';
  const callers = new Map<'lead' | 'staff' | 'contact', Caller>();
  let asked = 0;

  beforeAll(async () => {
    scene = await makeScene();
    pieceId = await fill(2);
    callers.set('lead', await callerAs(scene, 'lead'));
    callers.set('staff', await callerAs(scene, 'staff'));
    callers.set('contact', await callerByLink(scene, 'room', scene.a.contactId));
    await scene.server.get(Jobs).beforeApplicationShutdown(); // what jobs ask is not what a list asks
    const count = () => void (asked += 1);
    const silent = () => undefined;
    scene.app.manager.connection.setOptions({
      logging: ['query'],
      logger: { logQuery: count, logQueryError: silent, logQuerySlow: silent, logSchemaBuild: silent, logMigration: silent, log: silent },
    });
  });
  afterAll(() => scene.close());

  /** So many pieces in the making, so many with the client, requests, notes. Returns one of the pieces. */
  async function fill(count: number): Promise<string> {
    const { app, people, a } = scene;
    let last = '';
    for (let index = 0; index < count; index++) {
      last = await makePiece(scene, a);
      getValue(await assignStep(app, people.lead, await stepOf(scene, last, 'write'), people.staff.personId));
      getValue(await addRule(app, people.lead, a.id, rule(a.channelIds[0] ?? '')));
      getValue(await catchIdea(app, people.lead, { title: `Idea ${index}`, clientId: a.id }));
      getValue(await addNote(app, people.lead, { pieceId: last }, { kind: 'comment', text: 'Look', assetIds: [], mentionIds: [] }));
      const sent = await makePiece(scene, a);
      getValue(await editContent(app, people.lead, sent, { shared: { copy: 'Copy', disclosure: '', media: [] }, channels: [] }, 1));
      for (const key of ['write', 'design', 'check']) getValue(await handIn(app, people.lead, await stepOf(scene, sent, key)));
      if (index > 0) getValue(await sendPacket(app, people.lead, a.id, { title: `P${index}`, pieceIds: [sent], dueOn: '2027-03-10' }));
      getValue(
        await submitRequest(app, a.linkId, { name: 'N', email: 'contact@aaa.test', answers: { about: 'X' }, version: 1 }, randomUUID()),
      );
    }
    return last;
  }

  const LISTS: readonly (readonly ['lead' | 'staff' | 'contact', () => string])[] = [
    ['lead', () => '/api/pieces'],
    ['lead', () => '/api/pieces?shown=all'],
    ['lead', () => '/api/requests'],
    ['lead', () => '/api/packets'],
    ['lead', () => '/api/desk'],
    ['lead', () => '/api/stations'],
    ['lead', () => '/api/people'],
    ['lead', () => '/api/clients'],
    ['lead', () => '/api/clients/rows'],
    ['lead', () => '/api/routes'],
    ['lead', () => '/api/routes/whole'],
    ['lead', () => '/api/calendar?from=2027-03-01&to=2027-04-30'],
    ['lead', () => '/api/calendar?from=2027-03-01&to=2027-03-07'],
    ['lead', () => '/api/find?q=piece'],
    ['lead', () => '/api/agency'],
    ['lead', () => `/api/clients/${scene.a.id}/ready`],
    ['lead', () => `/api/clients/${scene.a.id}/links`],
    ['lead', () => `/api/clients/${scene.a.id}/activity`],
    ['lead', () => `/api/clients/${scene.a.id}/mix?from=2027-03-01&to=2027-03-31`],
    ['lead', () => `/api/clients/${scene.a.id}/rhythm`],
    ['lead', () => `/api/clients/${scene.a.id}/plan?month=2027-03`],
    ['lead', () => `/api/clients/${scene.a.id}/year?month=2027-03`],
    ['lead', () => '/api/runway'],
    ['lead', () => '/api/slots?from=2027-03-01&to=2027-04-30'],
    ['lead', () => `/api/clients/${scene.a.id}/topics`],
    ['lead', () => `/api/clients/${scene.a.id}/goals`],
    ['lead', () => `/api/clients/${scene.a.id}/evergreen`],
    ['lead', () => `/api/clients/${scene.a.id}/phrases`],
    ['lead', () => '/api/kept-files'],
    ['lead', () => `/api/pieces/${pieceId}/kept-files`],
    ['lead', () => '/api/campaigns'],
    ['lead', () => '/api/duties'],
    ['staff', () => '/api/duties/mine'],
    ['lead', () => '/api/ideas'],
    ['lead', () => `/api/ideas?clientId=${scene.a.id}`],
    ['lead', () => `/api/pieces/${pieceId}/notes`],
    ['lead', () => `/api/people/${scene.people.staff.personId}`],
    ['staff', () => '/api/steps/mine'],
    ['staff', () => '/api/pieces'],
    ['contact', () => `/api/room/${scene.a.contactId}`],
  ];

  /** Of each list, how many statements it asked and how much it answered. */
  async function count(): Promise<Map<string, { asked: number; bytes: number }>> {
    const counts = new Map<string, { asked: number; bytes: number }>();
    for (const [who, path] of LISTS) {
      const before = asked;
      const answer = await callers.get(who)?.call('GET', path());
      expect([path(), answer?.status]).toEqual([path(), 200]);
      counts.set(`${who} ${path()}`, { asked: asked - before, bytes: JSON.stringify(answer?.body).length });
    }
    return counts;
  }

  /** Waits until what live updates and jobs ask after a change is over. */
  async function quiet(): Promise<void> {
    for (let before = -1; before !== asked;) {
      before = asked;
      await new Promise((resolve) => setTimeout(resolve, 300));
    }
  }

  it('are as many however much there is, and few', async () => {
    await quiet();
    const few = await count();
    await fill(4);
    await quiet();
    const many = await count();
    const grew = [...many]
      .filter(([path, { asked: now }]) => now !== few.get(path)?.asked)
      .map(([path, { asked: now }]) => [path, few.get(path)?.asked, now]);
    expect(grew).toEqual([]);
    expect([...many].filter(([, { asked: now }]) => now === 0 || now > MOST)).toEqual([]);
    // the count says something: the lists did grow
    expect([...many].filter(([path, { bytes }]) => bytes > (few.get(path)?.bytes ?? 0)).length).toBeGreaterThan(12);
  });
});
