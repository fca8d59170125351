import { addDays, getValue, type Day } from '@zesting/core';
import { addDuty, dutyDaysOf, markDuty, type App } from '@zesting/server';
import { CLIENTS, type ClientKey } from './clients.js';
import { todayOf } from './plan-story.js';
import type { Setup } from './setup.js';
import { AGENCY, type PersonKey, type RouteKey } from './story.js';

interface StoryDuty {
  /** null: the agency's own */
  readonly client: ClientKey | null;
  readonly title: string;
  readonly remark: string;
  readonly checklist: readonly string[];
  readonly rule: string;
  readonly lead: PersonKey;
  readonly second: PersonKey | null;
  readonly minutes: number;
  readonly leadDays: number;
  /** what it makes, and on which of the client's channels; null: nothing */
  readonly piece: readonly [RouteKey, channel: number] | null;
  /** days from today on which it begins */
  readonly beginsIn: number;
  /** so many of the last times before today were missed; all others were done */
  readonly missed: number;
}

/** What comes again, and is no step of a piece. */
const DUTIES: readonly StoryDuty[] = [
  {
    client: 'moss',
    title: 'Answer the comments',
    remark: 'Names of plants in plain words first. What asks for advice goes to Hana.',
    checklist: ['Photo feed', 'Questions at the shop'],
    rule: 'FREQ=DAILY',
    lead: 'dana',
    second: null,
    minutes: 15,
    leadDays: 0,
    piece: null,
    beginsIn: -20,
    missed: 2,
  },
  {
    client: 'kiln',
    title: 'Answer the comments',
    remark: 'Before eleven: the queue reads along.',
    checklist: [],
    rule: 'FREQ=WEEKLY;BYDAY=MO,WE,FR',
    lead: 'sunniva',
    second: 'piet',
    minutes: 15,
    leadDays: 0,
    piece: null,
    beginsIn: -20,
    missed: 0,
  },
  {
    client: null,
    title: 'Look at next week',
    remark: 'Client by client, with the door shut.',
    checklist: ['Holes in the runway', 'Steps that nobody has', 'What the clients still hold'],
    rule: 'FREQ=WEEKLY;BYDAY=FR',
    lead: 'dana',
    second: 'ivo',
    minutes: 45,
    leadDays: 2,
    piece: null,
    beginsIn: -25,
    missed: 0,
  },
  {
    client: 'moss',
    title: 'Renew the pictures of plants on sale',
    remark: 'Only what stands in the yard now.',
    checklist: ['Prices out of the pictures', 'Old ones taken down'],
    rule: 'FREQ=MONTHLY;INTERVAL=3;BYDAY=1MO',
    lead: 'piet',
    second: null,
    minutes: 180,
    leadDays: 10,
    piece: null,
    beginsIn: 2,
    missed: 0,
  },
  {
    client: 'tide',
    title: 'Members’ letter',
    remark: 'One story from the slip, one date, one wish.',
    checklist: ['Dates checked with Abe', 'Names of new members'],
    rule: 'FREQ=MONTHLY;BYDAY=-1TU',
    lead: 'ivo',
    second: 'dana',
    minutes: 0,
    leadDays: 21,
    piece: ['letter', 1],
    beginsIn: 60,
    missed: 0,
  },
];

/** Duties of the story, as they stood some weeks ago. The clock must stand before the first of them begins. */
export async function addDuties(app: App, setup: Setup, now: string): Promise<string[]> {
  const ids: string[] = [];
  for (const duty of DUTIES) {
    const client = duty.client && setup.clients[duty.client];
    const person = (key: PersonKey) => setup.viewers[key].personId;
    const body = {
      clientId: client?.id ?? null,
      title: duty.title,
      remark: duty.remark,
      checklist: [...duty.checklist],
      rule: duty.rule,
      fromOn: addDays(todayFor(duty, now), duty.beginsIn),
      untilOn: null,
      leadDays: duty.leadDays,
      leadId: person(duty.lead),
      secondId: duty.second && person(duty.second),
      minutes: duty.minutes,
      piece: duty.piece && {
        routeId: setup.routes[duty.piece[0]],
        channelIds: [client?.channelIds[duty.piece[1]] ?? ''],
        pillarId: client?.pillarIds[0] ?? null,
      },
    };
    ids.push(getValue(await addDuty(app, setup.viewers.marta, body)));
  }
  return ids;
}

const todayFor = ({ client }: StoryDuty, now: string): Day => todayOf(now, client === null ? AGENCY : CLIENTS[client]);

/** Says what was done of them until now: all but the last ones that were missed. */
export async function markDuties(app: App, setup: Setup, ids: readonly string[]): Promise<void> {
  for (const [index, dutyId] of ids.entries()) {
    const duty = DUTIES[index];
    if (!duty) continue;
    const past = (await dutyDaysOf(app, dutyId)).filter(({ state }) => state === 'missed');
    for (const { on } of past.slice(0, past.length - duty.missed))
      getValue(
        await markDuty(app, setup.viewers[duty.lead], dutyId, { on, mark: 'done', ticks: duty.checklist.map((_, position) => position) }),
      );
  }
}
