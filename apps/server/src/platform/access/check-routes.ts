import type { INestApplication } from '@nestjs/common';
import { MetadataScanner, ModulesContainer, Reflector } from '@nestjs/core';
import { Features } from '../feature.js';
import { ruleOf } from './access.js';

/** Stops the start when any route names no policy, or one that no feature has: nothing is open because somebody forgot. */
export function requirePolicies(app: INestApplication): void {
  const reflector = app.get(Reflector);
  const scanner = new MetadataScanner();
  for (const { controllers } of app.get(ModulesContainer).values())
    for (const { metatype } of controllers.values()) {
      const prototype = (metatype as { prototype?: object } | null)?.prototype;
      if (!prototype) continue;
      for (const name of scanner.getAllMethodNames(prototype)) {
        const handler: unknown = Reflect.get(prototype, name);
        if (typeof handler !== 'function' || !Reflect.hasMetadata('path', handler)) continue;
        const rule = ruleOf(reflector, handler as () => unknown);
        const route = `${metatype?.name ?? ''}.${name}`;
        if (!rule) throw new Error(`${route} names no policy`);
        const { policies, owners } = app.get(Features);
        if (!policies.has(rule.policy)) throw new Error(`${route} names the policy ${rule.policy}, which no feature has`);
        for (const kind of Object.keys(rule.resource))
          if (!owners.has(kind)) throw new Error(`${route} names a ${kind}, whose owner nobody tells`);
      }
    }
}
