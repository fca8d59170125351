/** Who may do what. A role that a policy does not name is refused; a route without a policy stops the start. */

export type Role = 'lead' | 'manager' | 'staff' | 'freelance';

/** `all`: any client's. `own`: the viewer's clients'. `assigned`: pieces with an own step. `self`: what is the viewer's alone. */
export type Reach = 'all' | 'own' | 'assigned' | 'self';

/** What a personal link opens. */
export type LinkPurpose = 'ask' | 'receipt' | 'room' | 'feed' | 'invite' | 'reset';

export interface Policy {
  readonly roles?: Partial<Record<Role, Reach>>;
  readonly link?: LinkPurpose;
  /** open to all: sign-in, opening a link, health */
  readonly open?: true;
}

const managers = { lead: 'all', manager: 'own' } as const;
const makers = { ...managers, staff: 'own', freelance: 'assigned' } as const;
const leads = { lead: 'all' } as const;
const selves = { lead: 'self', manager: 'self', staff: 'self', freelance: 'self' } as const;

export const POLICIES = {
  open: { open: true },
  'own.session': { roles: selves },
  'own.steps': { roles: selves },
  'desk.read': { roles: managers },
  find: { roles: makers },
  'agency.read': { roles: managers },
  'agency.edit': { roles: leads },
  'client.list': { roles: makers },
  'client.read': { roles: managers },
  'client.links': { roles: managers },
  'client.make': { roles: leads },
  'client.edit': { roles: managers },
  'client.archive': { roles: leads },
  'brand.read': { roles: { ...managers, staff: 'own', freelance: 'own' } },
  'person.list': { roles: managers },
  'person.read': { roles: { ...managers, staff: 'self', freelance: 'self' } },
  'person.edit': { roles: leads },
  'time_off.edit': { roles: { lead: 'all', manager: 'self', staff: 'self', freelance: 'self' } },
  'cover.edit': { roles: { lead: 'all', manager: 'self' } },
  'round_up.edit': { roles: selves },
  'days_off.read': { roles: { ...managers, staff: 'own', freelance: 'own' } },
  'route.read': { roles: managers },
  'route.edit': { roles: leads },
  'request.list': { roles: managers },
  'request.read': { roles: managers },
  'request.decide': { roles: managers },
  'piece.list': { roles: { ...managers, staff: 'own' } },
  'piece.read': { roles: makers },
  'piece.begin': { roles: managers },
  'piece.edit': { roles: managers },
  'piece.write_content': { roles: { ...managers, staff: 'assigned', freelance: 'assigned' } },
  'note.write': { roles: makers },
  'step.assign': { roles: managers },
  'step.do': { roles: { ...managers, staff: 'assigned', freelance: 'assigned' } },
  'asset.read': { roles: makers },
  'packet.list': { roles: managers },
  'packet.read': { roles: managers },
  'packet.send': { roles: managers },
  'decision.record': { roles: managers },
  'remark.settle': { roles: { ...managers, staff: 'assigned', freelance: 'assigned' } },
  'calendar.read': { roles: { ...managers, staff: 'own' } },
  'marker.edit': { roles: managers },
  'placement.edit': { roles: managers },
  'invite.answer': { link: 'invite' },
  'reset.answer': { link: 'reset' },
  'ask.fill_in': { link: 'ask' },
  'receipt.read': { link: 'receipt' },
  'room.read': { link: 'room' },
  'room.decide': { link: 'room' },
  'feed.read': { open: true }, // the secret in the address is the key; the handler checks it
} as const satisfies Record<string, Policy>;

export type PolicyName = keyof typeof POLICIES;
