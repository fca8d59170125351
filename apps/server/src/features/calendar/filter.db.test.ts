import type { CalendarCountsShape, CalendarShape, ChannelLookShape } from '@zesting/contract';
import { isOnTheme, ok } from '@zesting/core';
import { replanOpen } from '../planning/index.js';
import { makePlanScene, type PlanScene } from '../../../test-support/plan-scene.js';
import { makePiece } from '../../../test-support/scene.js';

describe('what is asked for on the calendar alone', () => {
  let plan: PlanScene;
  let campaignId = '';
  beforeAll(async () => {
    plan = await makePlanScene();
    const { app, a } = plan.scene;
    const body = { name: 'Spring', aim: '', fromOn: '2027-03-01', toOn: '2027-03-31', channelIds: [], markerIds: [] };
    campaignId = String((await plan.manager.call('POST', plan.of('campaigns'), { body })).body['campaignId']);
    const [craft, people] = plan.pillars.map(({ id }) => id);
    // two dated on both channels, one on the feed alone; a fourth is undated
    for (const [title, pillarId, on, inCampaign] of [
      ['One', craft, '2027-03-16', true],
      ['Two', people, '2027-03-16', false],
      ['Three', craft, '2027-03-18', false],
      ['Four', people, null, true],
    ] as const) {
      const pieceId = await makePiece(plan.scene, a);
      await app.read('update pieces set title = $2, pillar_id = $3 where id = $1', [pieceId, title, pillarId]);
      await app.read(
        `update placements set on_day = $2::date, at_time = case when $2::date is null then null else time '11:00' end, publish_at = $2::date + time '11:00', state = case when $2::date is null then 'undated' else 'pencilled' end
         where piece_id = $1 and ($3 or channel_id = $4)`,
        [pieceId, on, title !== 'Three', plan.feed],
      );
      if (inCampaign) await plan.manager.call('PUT', `/api/pieces/${pieceId}/campaign`, { body: { campaignId } });
    }
  });
  afterAll(() => plan.scene.close());

  const asked = async (filter: string) => {
    const path = `/api/calendar?from=2027-03-01&to=2027-03-31&clientId=${plan.scene.a.id}&${filter}`;
    const { entries, tray, filtered, hidden, trayHidden } = (await plan.manager.call('GET', path)).body as unknown as CalendarShape;
    const titles = (list: typeof entries) => [...new Set(list.map(({ pieceTitle }) => pieceTitle))].sort();
    return { titles: titles(entries), tray: titles(tray), entries: entries.length, filtered, hidden, trayHidden };
  };

  it('is all of it where nothing is named', async () => {
    expect(await asked('')).toEqual({
      titles: ['One', 'Three', 'Two'],
      tray: ['Four', 'Three'],
      entries: 5,
      filtered: 0,
      hidden: 0,
      trayHidden: 0,
    });
  });

  it('is what has the pillar, channel, campaign, stage and format, and how many are left out is said', async () => {
    const [craft = '', people = ''] = plan.pillars.map(({ id }) => id);
    expect(await asked(`pillarId=${craft}`)).toMatchObject({
      titles: ['One', 'Three'],
      tray: ['Three'],
      entries: 3,
      filtered: 2,
      trayHidden: 0,
    });
    expect(await asked(`pillarId=${people}&channelId=${plan.blog}`)).toMatchObject({ titles: ['Two'], entries: 1, filtered: 4 });
    expect(await asked(`campaignId=${campaignId}`)).toMatchObject({ titles: ['One'], tray: ['Four'], entries: 2, filtered: 3 });
    expect(await asked('stage=planned')).toMatchObject({ entries: 5, filtered: 0 });
    expect(await asked('stage=approved')).toMatchObject({ titles: [], tray: [], filtered: 5 });
    expect(await asked(`formatId=${plan.formatId}`)).toMatchObject({ entries: 5, filtered: 0 });
  });

  it('names what colours are told by', async () => {
    const { body } = await plan.manager.call('GET', `/api/calendar?from=2027-03-16&to=2027-03-16&campaignId=${campaignId}`);
    expect((body as unknown as CalendarShape).entries[0]).toMatchObject({ formatName: 'Still', campaignId, campaignName: 'Spring' });
  });

  it('refuses what can be meant by nobody', async () => {
    for (const wrong of ['pillarId=1', 'stage=done', 'campaignId=x'])
      expect((await plan.manager.call('GET', `/api/calendar?from=2027-03-01&to=2027-03-31&${wrong}`)).status).toBe(400);
  });

  it('is what speaks to the theme of its day, or what does not, as core tells it; days without a theme are neither', async () => {
    const theme = (on: string, name: string) => plan.manager.call('PUT', plan.of('themes'), { body: { period: 'week', on, name } });
    await plan.scene.app.read("update pieces set notes = 'How bells are cast' where title = 'Two'");
    expect((await theme('2027-03-16', 'The bell')).status).toBe(204);
    expect((await asked('theme=on')).titles).toEqual(['Two']);
    const off = await asked('theme=off');
    expect([off.titles, off.filtered]).toEqual([['One', 'Three'], 2]);
    for (const [title, text] of [
      ['One', 'One '],
      ['Two', 'Two How bells are cast'],
    ] as const)
      expect([title, isOnTheme(text, 'The bell')]).toEqual([title, (await asked('theme=on')).titles.includes(title)]);
    await theme('2027-03-16', '');
    expect([(await asked('theme=on')).titles, (await asked('theme=off')).titles]).toEqual([[], []]);
  });

  it('tells by which day each piece has to be done, where that is asked for', async () => {
    const { app } = plan.scene;
    const path = (more = '') => `/api/calendar?from=2027-03-01&to=2027-03-31&clientId=${plan.scene.a.id}${more}`;
    const dues = async (more = '&dues=yes') => ((await plan.manager.call('GET', path(more))).body as unknown as CalendarShape).dues;
    expect(await dues('')).toEqual([]);
    await app.write(async (tx, now) => ok(await replanOpen(tx, now)));
    // the client answers last: on its last working day before each goes out, Tuesday the 16th, Thursday the 18th; the fourth is wished for the
    // Tuesday after Easter, before which the client works last on Thursday
    const wish = await app.read<{ on: string }>("select wish_on as on from pieces where title = 'Four'");
    expect(wish[0]?.on).toBe('2027-03-30');
    expect((await dues()).map(({ title, on, stepTitle, doerName }) => [title, on, stepTitle, doerName])).toEqual([
      ['One', '2027-03-15', 'Client sign-off', 'the client'],
      ['Two', '2027-03-15', 'Client sign-off', 'the client'],
      ['Three', '2027-03-17', 'Client sign-off', 'the client'],
      ['Four', '2027-03-25', 'Client sign-off', 'the client'],
    ]);
    expect(await dues(`&dues=yes&channelId=${plan.blog}&stage=approved`)).toEqual([]);
  });

  it('shows a channel as those see it who follow it: the newest first, planned ones too, a page at a time', async () => {
    const look = async (channelId: string, after = 0) =>
      (await plan.manager.call('GET', `/api/clients/${plan.scene.a.id}/channels/${channelId}/look?after=${after}`))
        .body as unknown as ChannelLookShape;
    expect((await look(plan.feed)).looks.map(({ title, on }) => [title, on])).toEqual([
      ['Three', '2027-03-18'],
      expect.arrayContaining(['2027-03-16']),
      expect.arrayContaining(['2027-03-16']),
    ]);
    expect((await look(plan.blog)).looks).toHaveLength(2);
    const other = await plan.manager.call('GET', `/api/clients/${plan.scene.a.id}/channels/${plan.scene.b.channelIds[0]}/look`);
    expect(other.status).toBe(404);
    expect((await look(plan.feed, 2)).looks).toHaveLength(1);
  });

  it('is counted by day over a year, of what is asked for alone, markers once each', async () => {
    const counts = async (more = '') =>
      (await plan.manager.call('GET', `/api/calendar/counts?from=2027-01-01&to=2027-12-31&clientId=${plan.scene.a.id}${more}`))
        .body as unknown as CalendarCountsShape;
    expect((await counts()).days).toEqual([
      { on: '2027-03-16', firm: 0, pencilled: 4, failed: 0 },
      { on: '2027-03-18', firm: 0, pencilled: 1, failed: 0 },
    ]);
    await plan.scene.app.read(
      "update placements l set state = case when channel_id = $1 then 'missed' else 'scheduled' end from pieces p where p.id = l.piece_id and p.title = 'One'",
      [plan.feed],
    );
    expect((await counts()).days[0]).toEqual({ on: '2027-03-16', firm: 1, pencilled: 2, failed: 1 });
    expect((await counts(`&pillarId=${plan.pillars[1]?.id}`)).days).toEqual([{ on: '2027-03-16', firm: 0, pencilled: 2, failed: 0 }]);
    const span = { clientId: plan.scene.a.id, kind: 'event', name: 'Fair', startOn: '2027-05-30', endOn: '2027-06-02' };
    await plan.manager.call('POST', '/api/markers', { body: span });
    expect((await counts()).markers.filter(({ kind }) => kind === 'event').map(({ startOn, endOn }) => [startOn, endOn])).toEqual([
      ['2027-05-30', '2027-06-02'],
    ]);
    expect((await plan.manager.call('GET', '/api/calendar/counts?from=2027-01-01&to=2029-12-31')).status).toBe(400);
    expect(
      (await plan.manager.call('GET', `/api/calendar/counts?from=2027-01-01&to=2027-12-31&clientId=${plan.scene.b.id}`)).body,
    ).toMatchObject({ days: [] });
  });
});
