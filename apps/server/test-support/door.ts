import { RequestMethod, type ExecutionContext } from '@nestjs/common';
import { METHOD_METADATA, PATH_METADATA } from '@nestjs/common/constants.js';
import { MetadataScanner, ModulesContainer } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { AccessGuard } from '../src/platform/access/access.js';
import { Problem } from '../src/platform/http/problem.js';

interface Route {
  /** `GET /api/pieces/{pieceId}` */
  readonly name: string;
  readonly handler: unknown;
}

/** Who asks: a person of the agency by their session, somebody else by the cookies of their links. */
interface Asking {
  readonly viewerId?: string | undefined;
  readonly cookies?: ReadonlyMap<string, string> | undefined;
}

/** The guard of a server's routes, asked whom it lets in without a call. */
export class Door {
  private readonly guard: AccessGuard;
  private readonly handlers: ReadonlyMap<string, unknown>;

  constructor(server: NestExpressApplication) {
    this.guard = server.get(AccessGuard);
    this.handlers = new Map(routesOf(server).map(({ name, handler }) => [name, handler]));
  }

  /**
   * Whether the guard lets somebody in.
   * @param route as the OpenAPI document names it; @param path the same with the ids of things
   * @throws Error where there is no such route
   */
  async lets(route: string, path: string, { viewerId, cookies }: Asking): Promise<boolean> {
    const handler = this.handlers.get(route);
    if (!handler) throw new Error(`no handler of ${route}`);
    const viewer = viewerId === undefined ? undefined : await this.guard.viewerById(viewerId);
    const request = {
      params: paramsIn(route.split(' ')[1] ?? '', path),
      headers: { cookie: [...(cookies ?? [])].map(([name, value]) => `${name}=${value}`).join('; ') },
      get: () => undefined,
      session: { holder: { viewer } },
    };
    // the guard looks at nothing else
    const context = { getHandler: () => handler, switchToHttp: () => ({ getRequest: () => request }) } as unknown as ExecutionContext;
    try {
      return await this.guard.canActivate(context);
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      return false;
    }
  }
}

/** What stands in a path for each name of its pattern. */
function paramsIn(pattern: string, path: string): Record<string, string> {
  const parts = path.split('/');
  return Object.fromEntries(
    pattern.split('/').flatMap((part, index) => (/^\{\w+\}$/.test(part) ? [[part.slice(1, -1), parts[index] ?? '']] : [])),
  );
}

/** Every handler of the server by the name of its route. */
function routesOf(server: NestExpressApplication): Route[] {
  const scanner = new MetadataScanner();
  return [...server.get(ModulesContainer).values()].flatMap(({ controllers }) =>
    [...controllers.values()].flatMap(({ metatype }): Route[] => {
      const { prototype } = metatype as { prototype: Record<string, object> }; // a class
      const base = pathsOf(metatype as object);
      return scanner.getAllMethodNames(prototype).flatMap((name): Route[] => {
        const handler = prototype[name];
        const method = handler && (Reflect.getMetadata(METHOD_METADATA, handler) as RequestMethod | undefined);
        if (!handler || method === undefined) return [];
        return base.flatMap((from) => pathsOf(handler).map((to) => ({ name: `${RequestMethod[method]} ${described(from, to)}`, handler })));
      });
    }),
  );
}

/** The paths that a controller or a handler is declared with. */
const pathsOf = (declared: object): string[] => [Reflect.getMetadata(PATH_METADATA, declared) as string | string[]].flat(); // as Nest keeps them

/** As the OpenAPI document writes a path: `/api/pieces/{pieceId}`. */
function described(from: string, to: string): string {
  const path = [from, to]
    .flatMap((part) => part.split('/'))
    .filter(Boolean)
    .map((part) => part.replace(/^:(\w+)$/, '{$1}'));
  return `/${[...(path[0] === 'feeds' ? [] : ['api']), ...path].join('/')}`;
}
