import type { AlongChange, AlongKept, Danger } from '@zesting/core';
import { ArrayMaxSize, ArrayMinSize, IsArray, IsInt, IsUUID } from 'class-validator';

/** What a changed route changes of one step of a piece. */
export class AlongChangeShape {
  kind: AlongChange['kind'];
  title: string;
  fields: string[];
  /** of a step that goes, or comes in, or takes other days: who has it */
  doerName: string | null;
}

/** What a piece keeps although its route is otherwise by now. */
export class AlongKeptShape {
  title: string;
  why: AlongKept['why'];
}

/** A piece under way that goes by an earlier state of its route, and what it would come to if it were taken along. */
export class AlongPieceShape {
  pieceId: string;
  number: number;
  title: string;
  clientId: string;
  changes: AlongChangeShape[];
  kept: AlongKeptShape[];
  aimOn: string | null;
  dangerBefore: Danger | null;
  dangerAfter: Danger | null;
  /** the day on which something must be begun or ended, at the latest */
  beginByBefore: string | null;
  beginByAfter: string | null;
  /** changes by hand and the route's stand against each other: it cannot be taken along */
  isAgainst: boolean;
}

/** The pieces under way of a route that go by an earlier state of it. */
export class RouteAlongShape {
  /** the route's state that they would go by */
  version: number;
  pieces: AlongPieceShape[];
  /** those that nothing changes for */
  unmoved: string[];
  /** so many more are there than are looked at together */
  morePieces: number;
}

/** Pieces that are taken along with their route. */
export class TakeAlongBody {
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(200)
  @IsUUID('all', { each: true })
  pieceIds: string[];

  /** the route's state that was looked at */
  @IsInt()
  version: number;
}

/** What became of each. */
export class TakenAlongShape {
  pieces: { pieceId: string; problem: string | null }[];
}
