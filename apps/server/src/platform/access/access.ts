import { createParamDecorator, Injectable, SetMetadata, type CanActivate, type ExecutionContext } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import { isId } from '@zesting/core';
import { parseCookie } from 'cookie';
import type { Request } from 'express';
import { Database } from '../database/transaction.js';
import { Clock } from '../time/clock.js';
import { Problem } from '../http/problem.js';
import { linkCookie, Links, type OpenedLink } from './links.js';
import { Features } from '../feature.js';
import type { Policy, PolicyName, Reach, ResourceKind } from './policies.js';

export type { ResourceKind } from './policies.js';
import type { Holder } from './session-store.js';
import { viewerColumns, viewerFrom, type Viewer, type ViewerRow } from './viewers.js';

export type { Viewer } from './viewers.js';

/** The parameter of the path that names the resource, e.g. `{ piece: 'pieceId' }`. */
export type Resource = Partial<Record<ResourceKind, string>>;

export interface AccessRule {
  readonly policy: PolicyName;
  readonly resource: Resource;
}

const RULE = Symbol('access rule');

/** Names the policy of a route, and the resource in its path whose client the viewer must be allowed to see. */
export const Access = (policy: PolicyName, resource: Resource = {}): MethodDecorator =>
  SetMetadata(RULE, { policy, resource } satisfies AccessRule);

/** The rule of a handler; undefined when it has none. */
export const ruleOf = (reflector: Reflector, handler: () => unknown): AccessRule | undefined => reflector.get(RULE, handler);

interface Owner {
  client_id: string | null;
  piece_id: string | null;
  request_id: string | null;
}

interface Seen {
  viewer?: Viewer;
  link?: OpenedLink;
}
type SeenRequest = Request & Seen & { session?: { holder?: Holder } };

/** What in a path is no id: the secret of a feed, an upload's id with the hash of its place, the number of a version. */
const FREE_PARAMS = new Set(['secret', 'uploadId', 'number']);
const isNamed = ({ resource }: AccessRule, name: string): boolean => Object.values(resource).includes(name);
const notAnId = (name: string): Problem => Problem.of('http.invalid', { errors: { [name]: ['isUuid'] } });

/** Refuses by default: lets a request through only when the route's policy names the viewer and the resource is in reach. */
@Injectable()
export class AccessGuard implements CanActivate {
  constructor(
    private readonly reflector: Reflector,
    private readonly database: Database,
    private readonly links: Links,
    private readonly clock: Clock,
    private readonly features: Features,
  ) {}

  async canActivate(context: ExecutionContext): Promise<boolean> {
    const rule = ruleOf(this.reflector, context.getHandler() as () => unknown);
    if (!rule) throw new Error('route without a policy');
    const request = context.switchToHttp().getRequest<SeenRequest>();
    const policy = this.features.policies.get(rule.policy);
    if (!policy) throw new Error(`there is no policy ${rule.policy}`);
    for (const [name, value] of Object.entries(request.params))
      if (!FREE_PARAMS.has(name) && !isId(String(value))) throw isNamed(rule, name) ? Problem.of('access.not_found') : notAnId(name);
    if (policy.open) return true;
    if (policy.link) return this.byLink(request, policy.link);
    return this.byRole(request, policy, rule.resource);
  }

  private async byLink(request: SeenRequest, purpose: OpenedLink['purpose']): Promise<boolean> {
    const id = pathParam(request, 'linkId');
    // a page embedded in another site’s has no cookies: it says its token with each call
    const token = cookiesOf(request)[linkCookie(purpose, id)] ?? request.get('zesting-link');
    const opened = token ? await this.links.open(purpose, token) : undefined;
    if (!opened || opened.id !== id) throw Problem.of('access.link_not_open');
    request.link = opened;
    return true;
  }

  private async byRole(request: SeenRequest, policy: Policy, resource: Resource): Promise<boolean> {
    const viewer = request.session?.holder?.viewer;
    if (!viewer) throw Problem.of('access.signed_out');
    const reach = policy.roles?.[viewer.role];
    if (!reach || (policy.right === 'forms' && !viewer.mayEditForms)) throw Problem.of('access.refused');
    for (const [kind, param] of Object.entries(resource) as [ResourceKind, string][])
      if (!(await this.inReach(viewer, reach, kind, pathParam(request, param)))) throw Problem.of('access.not_found');
    request.viewer = viewer;
    return true;
  }

  /** A person of the agency as a viewer; undefined for who has left. */
  async viewerById(personId: string): Promise<Viewer | undefined> {
    const [row] = await this.database.read<ViewerRow>(`select ${viewerColumns('$2')} from people p where p.id = $1 and p.active`, [
      personId,
      this.clock.now(),
    ]);
    return row && viewerFrom(row);
  }

  private async inReach(viewer: Viewer, reach: Reach, kind: ResourceKind, id: string): Promise<boolean> {
    if (!isId(id)) return false;
    if (reach === 'self') return id === viewer.personId;
    // what several clients or pieces share has several owners: one of them is enough
    const owners = await this.database.read<Owner>(this.ownerOf(kind), [id]);
    if (reach === 'all') return owners.length > 0;
    const near = owners.filter(({ client_id: clientId }) => clientId === null || viewer.clientIds.includes(clientId));
    if (near.some(({ client_id: clientId }) => reach === 'own' || clientId === null)) return true;
    for (const owner of near) if (await this.worksOn(viewer, owner)) return true;
    return false;
  }

  /** SQL for whose a thing of that kind is. */
  private ownerOf(kind: ResourceKind): string {
    const sql = this.features.owners.get(kind);
    if (sql === undefined) throw new Error(`nobody says whose a ${kind} is`);
    return sql;
  }

  private async worksOn(viewer: Viewer, owner: Owner): Promise<boolean> {
    const rows = await this.database.read(
      'select 1 from steps where (doer_id = $1 or with_id = $1) and (piece_id = $2 or piece_id in (select piece_id from piece_requests where request_id = $3)) limit 1',
      [viewer.personId, owner.piece_id, owner.request_id],
    );
    return rows.length > 0;
  }
}

const pathParam = (request: SeenRequest, name: string): string => {
  const value = request.params[name];
  if (typeof value !== 'string') throw new Error(`the path has no ${name}`);
  return value;
};

/** The request's cookies by name. @see RFC 6265 */
export const cookiesOf = (request: Request): Record<string, string | undefined> => parseCookie(request.headers.cookie ?? '');

/** The viewer, in a handler whose policy is by role. */
export const CurrentViewer = createParamDecorator((_: unknown, context: ExecutionContext): Viewer => {
  const { viewer } = context.switchToHttp().getRequest<SeenRequest>();
  if (!viewer) throw new Error('no viewer on this route');
  return viewer;
});

/** The opened link's id, in a handler whose policy is by link. */
export const CurrentLink = createParamDecorator((_: unknown, context: ExecutionContext): string => {
  const { link } = context.switchToHttp().getRequest<SeenRequest>();
  if (!link) throw new Error('no link on this route');
  return link.id;
});
