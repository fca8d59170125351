/** What a writing aid is told, as far as the simulated one looks at it. */
export interface AskedDraft {
  readonly opening: string;
  readonly outline: readonly { readonly heading: string }[];
  readonly answers: readonly { readonly answer: string }[];
  readonly isLaidOut: boolean;
}

/** A draft that says what it was told, under its headings in turn: no more can be made up here. */
export function draftOf({ opening, outline, answers, isLaidOut }: AskedDraft): string {
  const words = (text: string) => (isLaidOut ? text.replace(/[\\`*_[\]#<>]/g, '\\$&') : text).trim();
  const below = (index: number) =>
    answers.filter((_, at) => outline.length === 0 || at % outline.length === index).map(({ answer }) => words(answer));
  const parts =
    outline.length === 0
      ? below(0)
      : outline.flatMap(({ heading }, index) => [`${isLaidOut ? '# ' : ''}${words(heading)}`, ...below(index)]);
  return [words(opening), ...parts].filter((part) => part !== '').join('\n\n');
}
