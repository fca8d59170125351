import type { Crop } from '@zesting/core';
import { ContentTextShape } from './text-bodies.js';
import { MediumShape } from './content-bodies.js';

/** A frozen version of a piece's content. */
export class VersionRow {
  id: string;
  number: number;
  frozenAt: string;
  /** who handed it in; null: nobody of the agency did */
  frozenBy: string | null;
  /** the rounds in which it went to the client */
  rounds: number[];
  approvals: number;
  /** how many asked for changes */
  changes: number;
}

export class VersionChannelShape {
  channelId: string;
  name: string;
  copy: string;
  tags: string[];
  firstComment: string;
  link: string;
  /** which of the media went out here, by their digests; left away: all */
  media?: string[];
  /** how pictures were cut here, by their digests */
  crops?: Record<string, Crop>;
}

/** The content as it was, or as it is being worked on. */
export class VersionContentShape {
  /** null: what is being worked on now */
  number: number | null;
  copy: string;
  disclosure: string;
  isLaidOut: boolean;
  texts: ContentTextShape[];
  media: MediumShape[];
  channels: VersionChannelShape[];
}

/** Two contents of a piece, and all that could be chosen. */
export class VersionsShape {
  /** newest first */
  versions: VersionRow[];
  before: VersionContentShape;
  after: VersionContentShape;
  /** the content's version, for what is brought back */
  contentVersion: number;
}
