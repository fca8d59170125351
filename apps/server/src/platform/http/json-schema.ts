import { Ajv2020 } from 'ajv/dist/2020.js';

/** What is wrong at a place of a document. */
export interface SchemaFault {
  /** a JSON Pointer (RFC 6901) */
  readonly at: string;
  readonly message: string;
}

const ajv = new Ajv2020({ allErrors: false, strict: true, allowUnionTypes: true });
/** So many faults are told: the first is what must be mended. */
const TOLD = 5;

/** Makes a check of documents against a JSON Schema (2020-12); no faults when all is well. */
export function schemaCheck(schema: Readonly<Record<string, unknown>>): (document: unknown) => SchemaFault[] {
  const check = ajv.compile(schema);
  return (document) => {
    if (check(document)) return [];
    return (check.errors ?? []).slice(-TOLD).map(({ instancePath, message, params }) => ({
      at: instancePath,
      message: `${message ?? 'is not right'}${'additionalProperty' in params ? `: ${String(params['additionalProperty'])}` : ''}`,
    }));
  };
}
