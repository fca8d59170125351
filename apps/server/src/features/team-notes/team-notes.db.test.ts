import sharp from 'sharp';
import { getValue } from '@zesting/core';
import { callerAs, callerByLink, makePiece, makeScene, stepOf, type Caller, type Scene } from '../../../test-support/scene.js';
import { addPieceFile, assignStep } from '../production/index.js';

describe('what the team writes on a piece', () => {
  let scene: Scene;
  let pieceId: string;
  let manager: Caller;
  let staff: Caller;
  let freelance: Caller;
  beforeAll(async () => {
    scene = await makeScene();
    pieceId = await makePiece(scene, scene.a);
    manager = await callerAs(scene, 'manager');
    staff = await callerAs(scene, 'staff');
    freelance = await callerAs(scene, 'freelance');
  });
  afterAll(() => scene.close());
  beforeEach(() => scene.begin());

  type Note = {
    id: string;
    text: string;
    version: number;
    mentioned: string[];
    isMine: boolean;
    canRemove: boolean;
    files: { name: string }[];
  };
  const notesOf = async (caller: Caller) =>
    (await caller.call('GET', `/api/pieces/${pieceId}/notes`)).body as unknown as { notes: Note[]; team: { name: string }[] };
  const write = (caller: Caller, body: object) =>
    caller.call('POST', `/api/pieces/${pieceId}/notes`, { body: { kind: 'comment', assetIds: [], mentionIds: [], ...body } });
  const waiting = (name: string) =>
    scene.app.read<{ text: string; path: string }>(
      'select n.text, n.path from notices n join people p on p.id = n.person_id where p.name = $1 and n.sent_at is null order by n.id',
      [name],
    );

  it('can be addressed to those who see the piece, and to nobody else', async () => {
    expect((await notesOf(manager)).team.map((mate) => mate.name)).toEqual(['Lea', 'Sia']); // Fay has no step of it
    expect((await write(manager, { text: 'Hm', mentionIds: [scene.people.freelance.personId] })).body['code']).toBe('person.unknown');
    getValue(await assignStep(scene.app, scene.people.lead, await stepOf(scene, pieceId, 'write'), scene.people.freelance.personId));
    expect((await notesOf(manager)).team.map((mate) => mate.name)).toEqual(['Fay', 'Lea', 'Sia']);
  });

  it('is told to whom it is addressed, once, in the round-up; taken back before, nobody hears', async () => {
    await write(manager, { text: 'Is the light right?', mentionIds: [scene.people.freelance.personId, scene.people.manager.personId] });
    expect((await waiting('Fay')).at(-1)).toEqual({ text: 'Max wrote: “Is the light right?”', path: `/pieces/${pieceId}#talk` });
    expect(await waiting('Max')).toEqual([]); // nobody tells themselves
    const { notes } = await notesOf(freelance);
    expect(notes.at(-1)).toMatchObject({ text: 'Is the light right?', mentioned: ['Fay'], isMine: false, canRemove: false });
    const note = notes.at(-1) as Note;
    expect((await freelance.call('DELETE', `/api/notes/${note.id}`)).body['code']).toBe('note.of_another');
    expect((await manager.call('DELETE', `/api/notes/${note.id}`)).status).toBe(204);
    expect((await waiting('Fay')).filter((one) => one.text.includes('light'))).toEqual([]);
    expect((await notesOf(freelance)).notes).toEqual([]);
  });

  it('is changed by its author alone, and not over a change that was not seen', async () => {
    await write(staff, { text: 'Firts' });
    const note = (await notesOf(staff)).notes.at(-1) as Note;
    const edit = (caller: Caller, text: string, version: number) =>
      caller.call('PATCH', `/api/notes/${note.id}`, { body: { text }, headers: { 'If-Match': `"${version}"` } });
    expect((await edit(manager, 'Mine', note.version)).body['code']).toBe('note.of_another');
    expect((await edit(staff, 'First', note.version)).status).toBe(204);
    expect((await edit(staff, 'Second', note.version)).body['code']).toBe('http.changed_meanwhile');
    expect((await notesOf(staff)).notes.at(-1)).toMatchObject({ text: 'First', isMine: true, canRemove: true, version: note.version + 1 });
    const lines = await scene.app.read<{ verb: string; detail: unknown }>(
      "select verb, detail from activities where thing_id = $1 and verb like '%not%' or verb like '%comment%' order by id desc limit 2",
      [pieceId],
    );
    expect(lines[0]).toEqual({ verb: 'note.edited', detail: { text: { from: 'Firts', to: 'First' } } });
    expect((await manager.call('DELETE', `/api/notes/${note.id}`)).status).toBe(204); // a manager may
    expect((await edit(staff, 'Third', note.version + 1)).body['code']).toBe('note.removed');
  });

  it('adds files of the piece to the brief, shown as they are, and no others', async () => {
    const bytes = await sharp({ create: { width: 9, height: 9, channels: 3, background: '#345' } })
      .png()
      .toBuffer();
    const file = getValue(await addPieceFile(scene.app, pieceId, { name: 'mood.png', bytes }));
    const otherPiece = await makePiece(scene, scene.b);
    const other = getValue(await addPieceFile(scene.app, otherPiece, { name: 'secret.png', bytes }));
    expect((await write(manager, { kind: 'brief', text: 'x', assetIds: [other.assetId] })).body['code']).toBe('file.unknown');
    const [{ hash } = { hash: '' }] = await scene.app.read<{ hash: string }>('select hash from assets where id = $1', [file.assetId]);
    const isAsItIs = async () => (await manager.call('GET', `/api/files/${file.assetId}`)).headers.get('etag') === `"${hash}"`;
    expect(await isAsItIs()).toBe(false); // as content it carries the mark *not approved*, or waits for it
    await write(manager, { kind: 'brief', text: 'In this mood', assetIds: [file.assetId] });
    expect((await notesOf(freelance)).notes.at(-1)).toMatchObject({ text: 'In this mood', files: [{ name: 'mood.png' }] });
    expect(await isAsItIs()).toBe(true);
  });

  it('is never in the client’s room, and refuses what is empty or too long', async () => {
    await write(manager, { text: 'The client must not read this' });
    const contact = await callerByLink(scene, 'room', scene.a.contactId);
    expect(JSON.stringify((await contact.call('GET', `/api/room/${scene.a.contactId}`)).body)).not.toContain('must not read');
    for (const body of [{ text: '' }, { text: 'x'.repeat(5001) }, { kind: 'gossip', text: 'x' }, { text: 'x', mentionIds: ['Lea'] }])
      expect((await write(manager, body)).status).toBe(400);
  });
});
