import { Ajv, type ValidateFunction } from 'ajv';

interface Schema {
  [key: string]: unknown;
}
interface Document {
  readonly components: { readonly schemas: Readonly<Record<string, Schema>> };
  readonly paths: Readonly<Record<string, Readonly<Record<string, { readonly responses: Readonly<Record<string, Answer>> }>>>>;
}
interface Answer {
  readonly content?: { readonly 'application/json'?: { readonly schema: Schema } };
}

/** What the API says of its answers, ready to be asked: the same for every server of the application's features, written once. */
const known = new Map<string, Promise<Described>>();
const OURS = 'of the features of the application';
const others = new Set<string>();

/** A server has other features than the application's: it describes itself. */
export const describesItself = (address: string): void => void others.add(address);

class Described {
  private readonly ajv = new Ajv({ strict: false, allErrors: true });
  private readonly made = new Map<Schema, ValidateFunction>();
  private readonly routes: readonly {
    readonly method: string;
    readonly pattern: RegExp;
    readonly responses: Readonly<Record<string, Answer>>;
  }[];

  constructor(document: Document) {
    const schemas = Object.fromEntries(Object.entries(document.components.schemas).map(([name, schema]) => [name, closed(schema)]));
    this.ajv.addSchema({ $id: 'api', components: { schemas } });
    this.routes = Object.entries(document.paths).flatMap(([path, methods]) =>
      Object.entries(methods).map(([method, { responses }]) => ({
        method: method.toUpperCase(),
        pattern: new RegExp(`^${path.replace(/\{\w+\}/g, '[^/]+')}$`),
        responses,
      })),
    );
  }

  /** What is wrong with an answer, as the document describes it; empty where nothing is, or where it describes none. */
  faults(method: string, path: string, status: number, body: unknown): string[] {
    const route = this.routes.find((one) => one.method === method && one.pattern.test(path));
    const schema = route?.responses[String(status)]?.content?.['application/json']?.schema;
    if (!schema) return [];
    let validate = this.made.get(schema);
    if (!validate) {
      validate = this.ajv.compile(closed(rooted(schema)));
      this.made.set(schema, validate);
    }
    return validate(body)
      ? []
      : (validate.errors ?? []).map(({ instancePath, message, params }) => `${instancePath} ${message ?? ''} ${JSON.stringify(params)}`);
  }
}

const isObject = (value: unknown): value is Schema => typeof value === 'object' && value !== null && !Array.isArray(value);

/** References point into the one document that was added. */
const rooted = (schema: Schema): Schema => JSON.parse(JSON.stringify(schema).replaceAll('"#/components/', '"api#/components/')) as Schema; // what was written

/**
 * Members that a shape does not name are faults; `nullable` beside a reference counts as OpenAPI 3.0 means it; what is no more than "an object" may
 * hold anything. Classes that a decorator names have no members here, since these tests run from the sources: the browser tests see that all are
 * filled.
 */
function closed(schema: Schema): Schema {
  const inner = Object.fromEntries(
    Object.entries(schema).map(([key, value]) => [
      key,
      isObject(value)
        ? key === 'properties'
          ? mapped(value)
          : closed(value)
        : Array.isArray(value)
          ? value.map((one: unknown) => (isObject(one) ? closed(one) : one))
          : value,
    ]),
  );
  const { nullable, ...rest } = inner;
  const members = isObject(rest['properties']) ? Object.keys(rest['properties']) : [];
  const whole = members.length > 0 && rest['additionalProperties'] === undefined ? { ...rest, additionalProperties: false } : rest;
  return nullable === true ? { anyOf: [whole, { type: 'null' }] } : whole;
}
const mapped = (properties: Schema): Schema =>
  Object.fromEntries(Object.entries(properties).map(([name, schema]) => [name, isObject(schema) ? closed(schema) : schema]));

/** Throws where an answer is not as the API describes it. */
export async function checkDescribed(address: string, method: string, path: string, status: number, body: unknown): Promise<void> {
  const whose = others.has(address) ? address : OURS;
  let described = known.get(whose);
  if (!described) {
    described = fetch(`${address}/api/openapi.json`).then(async (answer) => new Described((await answer.json()) as Document)); // its own shape
    known.set(whose, described);
  }
  const faults = (await described).faults(method, path.split('?')[0] ?? '', status, body);
  if (faults.length > 0) throw new Error(`${method} ${path} answers otherwise than it says:\n${faults.slice(0, 8).join('\n')}`);
}
