import type { CalendarShape } from '@zesting/contract';
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
  }, 60_000);
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
});
