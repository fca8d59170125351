/**
 * Whose name stands behind an @ in a text: the whole name, or a first name that only one of the team has.
 * @returns their ids, in the order of the team
 */
export function mentionedIn(text: string, team: readonly { readonly personId: string; readonly name: string }[]): string[] {
  const plain = text.toLowerCase();
  const first = (name: string): string => name.toLowerCase().split(' ')[0] ?? '';
  const stands = (name: string): boolean => {
    const at = plain.indexOf(`@${name}`);
    // a longer word is another name
    return at >= 0 && !/[\p{L}\p{N}]/u.test(plain[at + name.length + 1] ?? '') && !/[\p{L}\p{N}]/u.test(plain[at - 1] ?? '');
  };
  return team
    .filter(
      ({ name }) =>
        stands(name.toLowerCase()) || (stands(first(name)) && team.filter((other) => first(other.name) === first(name)).length === 1),
    )
    .map((mate) => mate.personId);
}
