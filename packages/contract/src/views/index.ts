import { IsBoolean, IsIn, IsString, Matches, MaxLength } from 'class-validator';
import { IsNotBlank } from '../fields/index.js';

/** The pages whose way of looking can be kept under a name. */
export const VIEW_PAGES = ['calendar', 'production'] as const;
export type ViewPage = (typeof VIEW_PAGES)[number];

/** A way of looking at a page, by the query of its address. */
export class SavedViewBody {
  @IsIn(VIEW_PAGES)
  page: ViewPage;

  @IsString()
  @IsNotBlank()
  @MaxLength(60)
  name: string;

  /** without its question mark: names and values of choices, nothing else */
  @IsString()
  @MaxLength(500)
  @Matches(/^[\w=&%.,:@+-]*$/)
  query: string;

  /** whether everybody of the agency sees it */
  @IsBoolean()
  isShared: boolean;
}

export class SavedViewShape {
  id: string;
  page: ViewPage;
  name: string;
  query: string;
  isShared: boolean;
  /** whose it is */
  by: string;
  isOwn: boolean;
}

export class SavedViewsShape {
  views: SavedViewShape[];
}

export class SavedViewMadeShape {
  viewId: string;
}
