import { getValue, nextMonth } from '@zesting/core';
import { addTopics, catchTopicIdea, editTopic, setSubject, setTreatments, type App } from '@zesting/server';
import { CLIENTS } from './clients.js';
import { todayOf } from './plan-story.js';
import type { Setup } from './setup.js';

const TREATMENTS = ['How to', 'Story', 'Close-up'] as const;

/** The nursery's tree: a pillar's number, a topic, its subtopics; after a title the piece or idea that was made of it, and how it treats it. */
const TREE = `
0 Ferns          | Tree ferns: First ferns of the season, Close-up; Maidenhair: The fern that everybody photographs, Close-up; Ferns in shade: Shade corner before and after, Story
0 Bulbs          | Spring bulbs; Summer bulbs: Summer bulbs arrive, Close-up; Bulbs in pots
0 Native trees   | Kōwhai; Seedlings to give: Native seedlings for schools, Story; Hedges: Hedges that birds like, Story
0 Gifts          | Small plants: Gift plants for small flats, How to; Seed packets; Books and tools
1 Water          | Watering by weight: Watering by weight, How to; Rain barrels: Rain barrels, ready, How to; Evening or morning: Why we water in the evening, How to
1 Soil           | Repotting: Repotting without tears, How to; Compost: Newsletter: compost in a cold winter, How to; Mulch
1 Moss           | Moss lawns: Moss lawns, honestly, Story; Between stones: Moss between paving stones, How to
1 Seeds          | Sowing by the month: Newsletter: what to sow now, How to; Saving seed: Seed from your own tomatoes, How to; Light for seedlings
2 Hands          | The cutting bench: Meet the cutting bench, Story; Who prunes what: Who prunes the wisteria, Story; Saturday helpers
2 Old plants     | Bonsai: Our oldest bonsai turns sixty, Story; The first greenhouse; Mother plants
2 The glasshouse | Open days: Newsletter: open greenhouse, Story; Heating; The greenhouse cat: What the greenhouse cat thinks of it, Story
`;

interface StorySubject {
  readonly name: string;
  readonly title: string;
  readonly treatment: string;
}

/** Reads a subtopic: `name`, or `name: title, treatment`. */
function parse(text: string): StorySubject {
  const [name = '', ...rest] = text.trim().split(': ');
  const told = rest.join(': ');
  const at = told.lastIndexOf(', ');
  return { name, title: at < 0 ? '' : told.slice(0, at), treatment: at < 0 ? '' : told.slice(at + 2) };
}

/** What the nursery's content is about, and what was made of it. */
export async function addSubjects(app: App, setup: Setup, now: string): Promise<void> {
  const client = setup.clients.moss;
  const viewer = setup.viewers[CLIENTS.moss.manager];
  getValue(await setTreatments(app, viewer, client.id, TREATMENTS, 1));
  const ids = new Map<string, string>();
  for (const line of TREE.trim().split('\n')) {
    const [head = '', below = ''] = line.split('|');
    const pillarId = client.pillarIds[Number(head[0])] ?? '';
    const [parentId = ''] = getValue(await addTopics(app, viewer, client.id, { pillarId, parentId: null, names: [head.slice(1).trim()] }));
    const subjects = below.split(';').map(parse);
    const made = getValue(await addTopics(app, viewer, client.id, { pillarId, parentId, names: subjects.map(({ name }) => name) }));
    for (const [index, { name, title, treatment }] of subjects.entries()) {
      const topicId = made[index] ?? '';
      ids.set(name, topicId);
      if (title) await say(app, setup, topicId, title, treatment);
    }
  }
  const month = todayOf(now, CLIENTS.moss).slice(0, 7);
  getValue(await catchTopicIdea(app, viewer, ids.get('Mother plants') ?? '', { treatment: 'Story' }));
  for (const [name, ahead] of [
    ['Light for seedlings', [1]],
    ['Mother plants', [1, 7]],
    ['Saturday helpers', [2]],
    ['Mulch', [3, 9]],
  ] as const)
    getValue(await editTopic(app, viewer, ids.get(name) ?? '', { months: ahead.map((by) => nextMonth(month, by)) }, 1));
}

async function say(app: App, setup: Setup, topicId: string, title: string, treatment: string): Promise<void> {
  const viewer = setup.viewers[CLIENTS.moss.manager];
  const of = async (table: 'pieces' | 'ideas') =>
    (await app.read<{ id: string }>(`select id from ${table} where client_id = $1 and title = $2`, [setup.clients.moss.id, title]))[0]?.id;
  const [pieceId, ideaId] = [await of('pieces'), await of('ideas')];
  if (pieceId) getValue(await setSubject(app, viewer, { pieceId }, { topicId, treatment }));
  else if (ideaId) getValue(await setSubject(app, viewer, { ideaId }, { topicId, treatment }));
}
