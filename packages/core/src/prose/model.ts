/** Words that look alike. A new line in them begins a new line of its block. */
export interface ProseRun {
  readonly text: string;
  readonly isStrong: boolean;
  readonly isEmphasis: boolean;
  /** the address that it leads to; null: it is no link */
  readonly link: string | null;
}

/** A run that was read, with where its words stand in what was read, in UTF-16 units. */
export interface ReadRun extends ProseRun {
  readonly from: number;
  readonly to: number;
}

/** What stands at one point of a list: its words, then lists below it. */
export type ProseItem<Run extends ProseRun = ProseRun> = readonly (
  Extract<ProseBlock<Run>, { kind: 'paragraph' }> | Extract<ProseBlock<Run>, { kind: 'list' }>
)[];

/** A part of a copy that is laid out: our own content model, whatever it is written with. */
export type ProseBlock<Run extends ProseRun = ProseRun> =
  | { readonly kind: 'paragraph'; readonly runs: readonly Run[] }
  /** 1 is the highest, below the title that the piece has anyway */
  | { readonly kind: 'heading'; readonly level: 1 | 2 | 3; readonly runs: readonly Run[] }
  | { readonly kind: 'list'; readonly isOrdered: boolean; readonly items: readonly ProseItem<Run>[] };

/** Whether an address leads to where links of a copy may lead: a page, a mailbox, a telephone. Nothing that runs. */
export const isSafeLink = (address: string): boolean => /^(https?:\/\/|mailto:|tel:)[^\s<>]+$/i.test(address);
