import type { TeamNoteKind } from '@zesting/contract';
import type { PersonKey } from './story.js';

/** What the team wrote on pieces of the story, by their titles. The client never sees it. */
export const TALK: readonly { readonly piece: string; readonly by: PersonKey; readonly kind: TeamNoteKind; readonly text: string }[] = [
  {
    piece: 'Watering by weight',
    by: 'dana',
    kind: 'brief',
    text: 'Hana says: weigh the pot dry, weigh it wet, water at half way. She has kitchen scales with a brass pan that we may show.',
  },
  {
    piece: 'Watering by weight',
    by: 'noor',
    kind: 'comment',
    text: 'Grams alone, or ounces too? Half of their letters come from the States.',
  },
  { piece: 'Watering by weight', by: 'dana', kind: 'comment', text: 'Grams. One line at the end with ounces is enough.' },
  {
    piece: 'Meet the cutting bench',
    by: 'piet',
    kind: 'comment',
    text: 'The bench is in the shade until eleven: I go back for the second picture on Tuesday.',
  },
];
