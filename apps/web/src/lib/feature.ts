import type { SessionShape } from '@zesting/contract';
import type { RouteObject } from 'react-router';

/** Something that can be done from anywhere, as finding offers it. */
export interface Action {
  readonly words: string;
  readonly note: string;
  /** null: the keyboard help */
  readonly path: string | null;
}

export const go = (words: string, path: string, note = 'go there'): Action => ({ words, path, note });

/** All that a feature brings to the interface: the one declaration that the application is made of. See docs/adding-a-feature.md. */
export interface WebFeature {
  readonly name: string;
  /** its pages, under the frame */
  readonly routes: readonly RouteObject[];
  /** where it stands in the Setup menu, for those who manage; `order` from 0 */
  readonly setup?: { readonly name: string; readonly path: string; readonly order: number };
  /** what finding offers of it, in the order in which it is offered */
  readonly actions?: (session: SessionShape) => readonly Action[];
  /** what was done, by the verb of the record: "Dana *made the piece*" */
  readonly verbs?: Readonly<Record<string, string>>;
}

/** Whether somebody plans, assigns, sends and places. */
export const manages = ({ role }: Pick<SessionShape, 'role'>): boolean => role === 'lead' || role === 'manager';
