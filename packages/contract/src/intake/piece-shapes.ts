/** Who is predicted to end a step first, and when. */
export class ProposedDoerShape {
  title: string;
  name: string;
  startOn: string;
  finishOn: string;
}
