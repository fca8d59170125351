import type { BriefFact, FieldKind, FileKind, FormFault, FormItem, FormLanguage, FoundFault, Serves, TestName } from '@zesting/core';

export const KIND_WORDS: Record<FieldKind | 'section' | 'text', string> = {
  short: 'Short text',
  long: 'Long text',
  number: 'Number',
  money: 'Money',
  day: 'Day',
  span: 'Span of days',
  one_of: 'One of',
  several_of: 'Several of',
  yes_no: 'Yes or no',
  link: 'Link',
  email: 'E-mail',
  phone: 'Telephone',
  channel: 'Channel',
  format: 'Format',
  pillar: 'Pillar',
  files: 'Files',
  section: 'Section',
  text: 'Fixed text',
};

export const FILE_KIND_WORDS: Record<FileKind, string> = { picture: 'Pictures', clip: 'Clips', sound: 'Sound', paper: 'Papers' };

export const TEST_WORDS: Record<TestName, string> = {
  answered: 'is answered',
  not_answered: 'is not answered',
  is: 'is',
  is_not: 'is not',
  contains: 'contains',
  contains_not: 'does not contain',
  at_least: 'is at least',
  below: 'is below',
};

export const FACT_WORDS: Record<BriefFact, string> = {
  about: 'What it is about',
  aim: 'Aim',
  audience: 'Audience',
  purpose: 'Purpose',
  page: 'Page to reach',
  offer: 'Offer to mention',
  refers: 'Pieces to refer to',
  material: 'Material',
};
export const SERVES_WORDS: Record<Serves, string> = { title: 'Title of the request', wish_date: 'Wish date', ...FACT_WORDS };

export const LANGUAGE_WORDS: Record<FormLanguage, string> = { en: 'English', de: 'German' };

const FAULT_WORDS: Record<FormFault, string> = {
  title_missing: 'The form has no title.',
  route_missing: 'No route is chosen: a request takes one.',
  route_gone: 'The route is archived: choose another.',
  rule_gone: 'Something that this rule sets is not there any more.',
  nothing_asked: 'Nothing is asked yet.',
  too_many_items: 'A form has 200 items at most.',
  key_wrong: 'The short name must begin with a small letter and hold only small letters, digits and _.',
  key_twice: 'Another item has the same short name.',
  label_missing: 'The words are missing.',
  options_missing: 'There is nothing to choose, or a choice is empty.',
  option_twice: 'The same choice stands there twice.',
  parent_unknown: 'It depends on a choice that is not there.',
  under_unknown: 'It depends on a choice that was taken out.',
  field_unknown: 'A condition asks about a question that is not there.',
  test_unfit: 'A condition does not fit the kind of question it asks about.',
  value_unfit: 'A condition is held against something that the question cannot be answered with.',
  too_deep: 'Conditions go five levels deep at most.',
  limits_turned: 'The most is less than the least.',
  preset_unfit: 'What it holds at first could not be sent.',
  serves_twice: 'Two questions tell the same.',
  serves_unfit: 'A title is a short text, a wish date is a day.',
  loop: 'These wait for each other:',
  closes_first: 'It closes before it opens.',
  rule_empty: 'This rule sets nothing.',
};

/** What must be mended, with the chain of a loop by its questions' words. */
export function faultWords({ fault, chain }: FoundFault, items: readonly FormItem[]): string {
  if (!chain) return FAULT_WORDS[fault];
  const names = chain.map((key) => `“${items.find((item) => item.key === key)?.label || key}”`);
  return `${FAULT_WORDS[fault]} ${[...names, names[0]].join(' → ')}.`;
}
