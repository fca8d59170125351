/** A channel as far as its reach is projected. */
export interface ReachChannel {
  readonly id: string;
  /** how many people follow it */
  readonly audience: number;
  /** the share of them that sees one post, 0 to 1 */
  readonly seen: number;
  /** posts in the time that is looked at */
  readonly posts: number;
}

export interface ReachRow {
  readonly id: string;
  readonly posts: number;
  /** how often a post is seen by somebody */
  readonly contacts: number;
  /** how many different people see at least one */
  readonly people: number;
}

export interface Reach {
  readonly channels: readonly ReachRow[];
  readonly posts: number;
  readonly contacts: number;
  readonly people: number;
}

/**
 * Projects what a rhythm reaches. Contacts are posts × audience × the share that sees one; people of a channel those who see at least one of its posts,
 * as if each were seen by chance: audience × (1 − (1 − share)^posts). Of several channels the largest counts whole, and of each other the part that is
 * not reached there already. A projection with shares that somebody guessed: common practice, to compare plans with each other and not to promise.
 * @param overlap the share of a channel's people that a larger channel reaches too, 0 to 1
 */
export function reachOf(channels: readonly ReachChannel[], overlap: number): Reach {
  const rows = channels.map(({ id, audience, seen, posts }) => ({
    id,
    posts,
    contacts: posts * audience * seen,
    people: audience * (1 - (1 - seen) ** posts),
  }));
  const people = rows.map((row) => row.people).sort((a, b) => b - a);
  const sum = (values: readonly number[]) => values.reduce((all, value) => all + value, 0);
  return {
    channels: rows,
    posts: sum(rows.map((row) => row.posts)),
    contacts: sum(rows.map((row) => row.contacts)),
    people: (people[0] ?? 0) + (1 - overlap) * sum(people.slice(1)),
  };
}
