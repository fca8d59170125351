import { BRIEF_FACTS, isField, type Answers, type BriefFact, type FormField, type FormItem } from './form.js';
import { readForm } from './reading.js';

/** What a field tells the makers: a title also says what it is about. */
const tells = ({ serves }: FormField, fact: BriefFact): boolean => serves === fact || (fact === 'about' && serves === 'title');

/** Of the facts that a format's brief needs, those that no question of a form asks for. */
export const factsNotAsked = (needs: readonly BriefFact[], items: readonly FormItem[]): BriefFact[] =>
  inOrder(needs).filter((fact) => !items.some((item) => isField(item) && tells(item, fact)));

/** Of the facts that a format's brief needs, those that no answer gives. */
export function factsMissing(needs: readonly BriefFact[], items: readonly FormItem[], given: Answers): BriefFact[] {
  const { items: shown, answers } = readForm(items, given);
  const answered = shown.filter(isField).filter(({ key }) => Object.hasOwn(answers, key));
  return inOrder(needs).filter((fact) => !answered.some((field) => tells(field, fact)));
}

const inOrder = (needs: readonly BriefFact[]): BriefFact[] => BRIEF_FACTS.filter((fact) => needs.includes(fact));
