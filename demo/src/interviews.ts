import { addDays, getValue } from '@zesting/core';
import { addQuestionSet, answerQuestion, askInterview, type App } from '@zesting/server';
import { CLIENTS, type ClientKey } from './clients.js';
import { todayOf } from './plan-story.js';
import type { Setup } from './setup.js';

/** Questions that the agency keeps: for whom, for which treatment. */
const SETS: readonly {
  readonly client: ClientKey | null;
  readonly title: string;
  readonly treatment: string;
  readonly questions: string[];
}[] = [
  {
    client: null,
    title: 'A portrait of somebody who makes things',
    treatment: 'Story',
    questions: [
      'What does your day begin with?',
      'Who taught you, and what did they always say?',
      'What goes wrong most often?',
      'What would you show a visitor first?',
    ],
  },
  {
    client: null,
    title: 'Something people can do at home',
    treatment: 'How to',
    questions: ['What does one need for it?', 'Which step do people skip?', 'How can they tell that it worked?'],
  },
  {
    client: 'moss',
    title: 'A plant, by who grows it',
    treatment: 'Close-up',
    questions: ['Where does it come from?', 'What does it look like in August?', 'Who should not buy it?'],
  },
];

interface StoryInterview {
  readonly client: ClientKey;
  readonly idea: string;
  readonly title: string;
  /** a contact's address, or the name of somebody else */
  readonly who: string;
  /** days from today; null: no hurry */
  readonly dueDays: number | null;
  readonly questions: readonly (readonly [question: string, answer: string])[];
}

const INTERVIEWS: readonly StoryInterview[] = [
  {
    client: 'moss',
    idea: 'Who prunes the wisteria',
    title: 'Twice a year on the tall ladder',
    who: 'ollie@mossgrove.test',
    dueDays: 6,
    questions: [
      ['What does the day of the ladder begin with?', 'Tea, and looking at the sky. If the leaves turn their backs, we wait.'],
      ['Who taught you, and what did they always say?', 'Mrs Adair, who planted it: “Two buds, Oliver. Not three.”'],
      ['What goes wrong most often?', ''],
      ['What would you show a visitor first?', ''],
    ],
  },
  {
    client: 'tide',
    idea: 'The keel that came from a church roof',
    title: 'The papers of the keel',
    who: 'abe@tidelight.test',
    dueDays: 4,
    questions: [
      ['Which church was it, and what became of its roof?', ''],
      ['What do the papers say it cost?', ''],
      ['May we photograph them?', ''],
    ],
  },
  {
    client: 'kiln',
    idea: 'The baker who starts at midnight',
    title: 'A night in the bakehouse',
    who: 'Tomasz, who has the night',
    dueDays: null,
    questions: [
      ['What is the first thing that you hear?', 'The fan. Then nothing for an hour, which is the best hour.'],
      ['When do you know that it will be a good batch?', 'By the smell of the starter, before I have touched anything.'],
      ['What do you eat at four in the morning?', ''],
    ],
  },
];

/** What the agency keeps to ask, and what it has asked contacts and experts about ideas. */
export async function addInterviews(app: App, setup: Setup, now: string): Promise<void> {
  for (const { client, ...set } of SETS)
    getValue(await addQuestionSet(app, setup.viewers.dana, { ...set, clientId: client && setup.clients[client].id }));
  for (const { client, idea, title, who, dueDays, questions } of INTERVIEWS) {
    const { id: clientId } = setup.clients[client];
    const viewer = setup.viewers[CLIENTS[client].manager];
    const [found] = await app.read<{ ideaId: string; contactId: string | null }>(
      `select i.id as "ideaId", (select x.id from contacts x where x.client_id = $1 and x.email = $3) as "contactId" from ideas i where i.client_id = $1 and i.title = $2`,
      [clientId, idea, who],
    );
    if (!found) throw new Error(`there is no idea ${idea}`);
    const asked = {
      title,
      ...found,
      answerer: found.contactId === null ? who : '',
      dueOn: dueDays === null ? null : addDays(todayOf(now, CLIENTS[client]), dueDays),
      questions: questions.map(([question]) => question),
    };
    const interviewId = getValue(await askInterview(app, viewer, clientId, asked));
    const rows = await app.read<{ id: string; question: string }>('select id, question from interview_questions where interview_id = $1', [
      interviewId,
    ]);
    for (const [question, answer] of questions.filter(([, answer]) => answer !== '')) {
      const by = found.contactId === null ? { viewer } : { contactId: found.contactId };
      getValue(await answerQuestion(app, by, rows.find((row) => row.question === question)?.id ?? '', answer, 1));
    }
  }
}
