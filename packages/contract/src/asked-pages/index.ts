/** What a page answered to which a link leads. */
export class PageAnswerShape {
  address: string;
  /** of HTTP; null: no answer came */
  status: number | null;
  askedAt: string;
}

export class PageAnswersShape {
  /** those that were asked, by their addresses */
  rows: PageAnswerShape[];
}
