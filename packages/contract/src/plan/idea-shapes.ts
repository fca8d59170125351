import type { Freshness } from '@zesting/core';
import { UploadShape } from '../intake/index.js';

export class IdeaShape {
  id: string;
  clientId: string | null;
  title: string;
  note: string;
  link: string | null;
  pillarId: string | null;
  formatId: string | null;
  channelId: string | null;
  merit: number | null;
  ease: number | null;
  chance: number | null;
  /** how good it is beside the others, 0 to 1 */
  worth: number;
  notBeforeOn: string | null;
  freshUntilOn: string | null;
  freshness: Freshness;
  state: 'open' | 'dropped' | 'used' | 'combined';
  /** how many others were combined into it */
  parts: number;
  /** how many files came with it, and with those */
  files: number;
  /** how often the team wrote about it */
  notes: number;
  pieceId: string | null;
  pieceTitle: string | null;
  by: string;
  createdAt: string;
  version: number;
}

/** An idea that was combined into another. */
export class IdeaPartShape {
  id: string;
  title: string;
  note: string;
  link: string | null;
  by: string;
}

/** A file that came with an idea, or with a part of it. */
export class IdeaFileShape extends UploadShape {
  ideaId: string;
}

/** An idea with all that belongs to it. */
export class IdeaPageShape extends IdeaShape {
  combined: IdeaPartShape[];
  attached: IdeaFileShape[];
}

/** A request that is kept for later. */
export class KeptRequestShape {
  requestId: string;
  clientId: string;
  title: string;
  receivedAt: string;
}

export class SupplyShape {
  pillarId: string | null;
  name: string;
  ideas: number;
  perWeek: number;
  weeks: number | null;
}

export class IdeasShape {
  /** the best first */
  ideas: IdeaShape[];
  /** where the next page begins; null: there is none */
  next: string | null;
  counts: { open: number; dropped: number; used: number };
  /** requests kept for later, on the first page of open ones */
  requests: KeptRequestShape[];
  /** of one client; empty where all are asked for */
  supply: SupplyShape[];
}

/** Something there already that is much like an idea. */
export class CoveredShape {
  kind: 'idea' | 'piece';
  id: string;
  title: string;
  /** words that both have */
  words: string[];
  formatId: string | null;
  /** when it went out, or is to; null: it has no day */
  on: string | null;
  /** whether it is the same subject in the same format within the last three months: worth a second thought */
  isSoon: boolean;
}

export class IdeaMadeShape {
  ideaId: string;
  /** what is much like it: said, and never in the way */
  covered: CoveredShape[];
}
