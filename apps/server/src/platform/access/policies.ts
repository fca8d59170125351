/** Who may do what. A role that a policy does not name is refused; a route without a policy stops the start. */

export type Role = 'lead' | 'manager' | 'staff' | 'freelance';

/** `all`: any client's. `own`: the viewer's clients'. `assigned`: pieces with an own step. `self`: what is the viewer's alone. */
export type Reach = 'all' | 'own' | 'assigned' | 'self';

/** What a personal link opens. */
export type LinkPurpose = 'ask' | 'receipt' | 'room' | 'feed' | 'invite' | 'reset';

export interface Policy {
  readonly roles?: Partial<Record<Role, Reach>>;
  readonly link?: LinkPurpose;
  /** a right of its own, given per person; leads have it */
  readonly right?: 'forms';
  /** open to all: sign-in, opening a link, health */
  readonly open?: true;
}

/** Reaches that many policies share. */
export const MANAGERS = { lead: 'all', manager: 'own' } as const;
export const MAKERS = { ...MANAGERS, staff: 'own', freelance: 'assigned' } as const;
export const LEADS = { lead: 'all' } as const;
export const SELVES = { lead: 'self', manager: 'self', staff: 'self', freelance: 'self' } as const;

/** The names of a record of policies or owners, for the declarations below. */
export type NamesOf<T> = { readonly [Key in keyof T]: true };

/**
 * The names of all policies. Each feature declares its own:
 * `declare module '…/policies.js' { interface PolicyNames extends NamesOf<typeof policies> {} }`
 */
// eslint-disable-next-line @typescript-eslint/no-empty-object-type -- features add to it
export interface PolicyNames {}
export type PolicyName = keyof PolicyNames;

/** The kinds of things that routes name in their paths; declared by features in the same way. */
// eslint-disable-next-line @typescript-eslint/no-empty-object-type -- features add to it
export interface ResourceKinds {}
export type ResourceKind = keyof ResourceKinds;
