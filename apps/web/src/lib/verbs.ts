/** The words of verbs, as features bring them. */
const words = new Map<string, string>();

/** Takes in a feature's verbs. Two features do not share one. */
export function addVerbs(verbs: Readonly<Record<string, string>>): void {
  for (const [verb, said] of Object.entries(verbs)) words.set(verb, said);
}

/** What was done, in words; a verb without any is taken apart. */
export const verbWords = (verb: string): string => words.get(verb) ?? verb.replace(/[._]/g, ' ');
