/** Who is predicted to end a step first, and when. */
export class ProposedDoerShape {
  title: string;
  name: string;
  /** they usually do it for this client; else they are free first */
  isUsual: boolean;
  startOn: string;
  finishOn: string;
}
