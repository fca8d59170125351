/** What is said at a field when a rule of the contract is broken there, by the rule's name. */
const RULE_WORDS: Readonly<Record<string, string>> = {
  isNotBlank: 'This is needed.',
  isNotEmpty: 'This is needed.',
  isDefined: 'This is needed.',
  arrayNotEmpty: 'Choose at least one.',
  arrayUnique: 'Each only once.',
  isEmail: 'This is no e-mail address.',
  isUrl: 'This is no address: one begins with https://',
  maxLength: 'This is too long.',
  minLength: 'This is too short.',
  arrayMaxSize: 'These are too many.',
  isUuid: 'Choose one.',
  isIn: 'Choose one of these.',
  isDay: 'This is no day between 1990 and 2199.',
  isTimeOfDay: 'This is no time of day, such as 09:30.',
  isZone: 'No such time zone is known.',
  isInt: 'A whole number, please.',
  isNumber: 'A number, please.',
  min: 'This is too little.',
  max: 'This is too much.',
};

/** The words for the first of some broken rules. */
export const ruleWords = (rules: string | readonly string[]): string => {
  const name = typeof rules === 'string' ? rules : rules[0];
  return RULE_WORDS[name ?? ''] ?? 'This cannot be taken as it is.';
};
