import { getValue } from '@zesting/core';
import type { FindShape } from '@zesting/contract';
import { callerAs, makePiece, makeScene, stepOf, type Scene } from '../../../test-support/scene.js';
import { assignStep, editPiece } from '../production/index.js';

describe('finding', () => {
  let scene: Scene;
  beforeAll(async () => {
    scene = await makeScene();
  });
  afterAll(() => scene.close());

  const named = async (title: string, client = scene.a) => {
    const pieceId = await makePiece(scene, client);
    getValue(await editPiece(scene.app, scene.people.lead, pieceId, { title }, 1));
    return pieceId;
  };
  const titles = async (role: 'lead' | 'manager' | 'freelance', text: string, kind?: string) => {
    const { body } = await (await callerAs(scene, role)).call('GET', `/api/find?q=${encodeURIComponent(text)}`);
    return (body as unknown as FindShape).items.filter((item) => !kind || item.kind === kind).map((item) => item.title);
  };

  it('finds by every word, in any order and case, newest first, and by number', async () => {
    await named('Ferns of the season');
    const id = await named('The season’s last ferns');
    expect(await titles('lead', 'FERN season', 'piece')).toEqual(['The season’s last ferns', 'Ferns of the season']);
    expect(await titles('lead', 'fern winter')).toEqual([]);
    const [row] = await scene.app.read<{ number: number }>('select number from pieces where id = $1', [id]);
    expect(await titles('lead', String(row?.number), 'piece')).toContain('The season’s last ferns');
  });

  it('takes percent signs and backslashes as they are typed, and nothing for nothing', async () => {
    await named('100% wool');
    await named('100 wool');
    expect(await titles('lead', '100%')).toEqual(['100% wool']);
    expect(await titles('lead', '\\')).toEqual([]);
    expect(await titles('lead', '   ')).toEqual([]);
  });

  it('folds accents both ways, in titles and names', async () => {
    await named('Crème brûlée à la Søren');
    expect(await titles('lead', 'creme BRULEE')).toEqual(['Crème brûlée à la Søren']);
    expect(await titles('lead', 'CRÈME søren')).toEqual(['Crème brûlée à la Søren']);
    expect(await titles('lead', 'soren')).toEqual(['Crème brûlée à la Søren']);
    await scene.app.read("update clients set name = 'Smørbrød & Søn' where id = $1", [scene.b.id]);
    expect(await titles('lead', 'smorbrod', 'client')).toEqual(['Smørbrød & Søn']);
    await scene.app.read("update clients set name = 'Client BBB' where id = $1", [scene.b.id]);
    await scene.app.read("update people set name = 'Zoë' where id = $1", [scene.people.freelance.personId]);
    expect(await titles('lead', 'zoe')).toEqual(['Zoë']);
    await scene.app.read("update people set name = 'Fay' where id = $1", [scene.people.freelance.personId]);
  });

  it('looks in one client where its code is typed, and never in clients out of reach', async () => {
    await named('Harvest ferns', scene.b);
    expect(await titles('lead', 'bbb ferns', 'piece')).toEqual(['Harvest ferns']);
    expect(await titles('lead', 'bbb')).toContain('Client BBB');
    expect(await titles('manager', 'Harvest')).toEqual([]);
    expect(await titles('manager', 'BBB')).toEqual([]);
  });

  it('shows a freelancer the pieces with an own step alone: no requests, clients or people', async () => {
    const own = await named('Ferns to draw');
    getValue(await assignStep(scene.app, scene.people.lead, await stepOf(scene, own, 'write'), scene.people.freelance.personId));
    expect(await titles('freelance', 'ferns')).toEqual(['Ferns to draw']);
    expect(await titles('freelance', 'Client')).toEqual([]);
    expect(await titles('freelance', 'Max')).toEqual([]);
    expect(await titles('manager', 'Max')).toEqual(['Max']);
    expect(await titles('manager', 'contact@aaa')).toEqual(['Contact AAA']);
  });
});
