// Reads the contract's classes and the controllers with TypeScript's checker, and prints what OpenAPI needs to know of them
// to apps/server/dist/openapi-metadata.js. Runs after tsc, as part of the build.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ReadonlyVisitor } from '@nestjs/swagger/plugin';
import ts from 'typescript';

const root = join(import.meta.dirname, '..');
const visitor = new ReadonlyVisitor({
  introspectComments: true,
  classValidatorShim: true,
  esmCompatible: true,
  pathToSource: root,
  dtoFileNameSuffix: ['/index.ts', '/bodies.ts', '-bodies.ts', '/shapes.ts', '-shapes.ts'],
  controllerFileNameSuffix: ['.controller.ts'],
});
const program = ReadonlyVisitor.createTsProgram(join(root, 'apps/server/tsconfig.json'));
for (const file of program.getSourceFiles())
  if (!file.isDeclarationFile && (file.fileName.includes('/packages/contract/src/') || file.fileName.endsWith('.controller.ts')))
    visitor.visit(program, file);

const printer = ts.createPrinter();
const blank = ts.createSourceFile('metadata.ts', '', ts.ScriptTarget.ES2022);
/** Paths of sources become paths of what was compiled, seen from apps/server/dist. */
const compiled = (text) =>
  text.replace(/"\.\/packages\/contract\/(?:src|dist)\//g, '"../../../packages/contract/dist/').replace(/"\.\/apps\/server\/src\//g, '"./');
const print = (value) => {
  if (value && typeof value === 'object' && 'kind' in value) return printer.printNode(ts.EmitHint.Unspecified, value, blank);
  return `{ ${Object.entries(value)
    .map(([name, inner]) => `${JSON.stringify(name)}: ${print(inner)}`)
    .join(', ')} }`;
};
const list = (entries) => entries.map(([address, meta]) => `[${print(address)}, ${print(meta)}]`).join(',\n');
const { models, controllers } = visitor.collect();
const imports = Object.entries(visitor.typeImports).map(([path, code]) => `${JSON.stringify(path)}: ${code}`);
const text = `export default async () => {
const t = { ${imports.join(',\n')} };
return { "@nestjs/swagger": { models: [${list(models)}], controllers: [${list(controllers)}] } };
};
`;
writeFileSync(join(root, 'apps/server/dist/openapi-metadata.js'), compiled(text));
