import { callerAs, makeScene, type Caller, type Scene } from './scene.js';

export interface PlannedRule {
  id: string;
  rule: string;
  fromOn: string;
  anchorOn: string;
  nextOn: string[];
  exceptOn: string[];
  version: number;
}
export interface PlannedSlot {
  ruleId: string;
  on: string;
  at: string;
  theme: string | null;
  blackout: string | null;
  isPast: boolean;
  planned: { pieceId: string; title: string; state: string; isOnTheme: boolean | null } | null;
}
export interface PlannedMonth {
  slots: PlannedSlot[];
  beside: { title: string }[];
  themes: { name: string; from: string; period: string }[];
  mix: { name: string; wanted: number; count: number; owed: number }[];
  candidates: { kind: string; id: string; title: string; themes: string[]; readyOn: string | null; worth: number }[];
  routes: { readyOn: string | null }[];
  longestRun: number;
  largestGapDays: number | null;
}

/** A scene whose client A has two pillars and two channels, and what tests of its plan call again and again. */
export interface PlanScene {
  readonly scene: Scene;
  readonly lead: Caller;
  readonly manager: Caller;
  /** the client's channels */
  readonly feed: string;
  readonly blog: string;
  /** the one format that a route makes */
  readonly formatId: string;
  readonly pillars: { id: string; name: string }[];
  /** the body of a rule: Tuesdays and Thursdays at ten on the feed, from 1 March 2027 */
  readonly rule: (body?: object) => object;
  /** an address of the client's */
  readonly of: (path: string) => string;
  /** adds a rule, as the manager */
  readonly add: (body?: object) => Promise<string>;
  readonly rules: () => Promise<{ todayOn: string; ended: number; rules: PlannedRule[] }>;
  /** the client's month; without one March 2027 */
  readonly month: (month?: string) => Promise<PlannedMonth>;
  readonly fill: (...slots: object[]) => Promise<{ pieceId: string | null; problem: string | null }[]>;
  /** catches an idea for the client */
  readonly caught: (body: object) => Promise<string>;
  /** before each test: nothing is planned, and the clock is back */
  readonly reset: () => Promise<void>;
}

export async function makePlanScene(): Promise<PlanScene> {
  const scene = await makeScene();
  const [lead, manager] = [await callerAs(scene, 'lead'), await callerAs(scene, 'manager')];
  const [feed = '', blog = ''] = scene.a.channelIds;
  const [{ id: formatId } = { id: '' }] = await scene.app.read<{ id: string }>('select id from formats');
  const pillars = await scene.app.read<{ id: string; name: string }>(
    `insert into pillars (client_id, name, share, position) values ($1, 'Craft', 60, 0), ($1, 'People', 40, 1) returning id, name`,
    [scene.a.id],
  );
  const usual = { channelId: feed, rule: 'FREQ=WEEKLY;BYDAY=TU,TH', at: '10:00', fromOn: '2027-03-01', untilOn: null };
  const rule = (body: object = {}) => ({ ...usual, skipsHolidays: false, pillarId: null, formatId: null, ...body });
  const of = (path: string) => `/api/clients/${scene.a.id}/${path}`;
  const get = async <T>(path: string) => (await manager.call('GET', path)).body as unknown as T; // as the contract has it
  const post = async (path: string, body: object) => (await manager.call('POST', path, { body })).body;
  return {
    scene,
    lead,
    manager,
    feed,
    blog,
    formatId,
    pillars,
    rule,
    of,
    add: async (body = {}) => (await post(of('rhythm'), rule(body)))['ruleId'] as string,
    rules: () => get(of('rhythm')),
    month: (month = '2027-03') => get(of(`plan?month=${month}`)),
    fill: async (...slots) => (await post(of('plan'), { slots }))['slots'] as { pieceId: string | null; problem: string | null }[],
    caught: async (body) => (await post('/api/ideas', { clientId: scene.a.id, ...body }))['ideaId'] as string,
    reset: async () => {
      await scene.begin();
      for (const table of ['topic_uses', 'rhythm_rules', 'themes', 'client_plans', 'ideas']) await scene.app.read(`delete from ${table}`);
      await scene.app.read('update pieces set shelved = true'); // what tests before made
    },
  };
}
