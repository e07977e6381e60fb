import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import ts from 'typescript';
import { ROOT } from './paths';

/** The texts in an object literal of a source file. */
function textsIn(literal: ts.Expression): string[] {
  if (!ts.isObjectLiteralExpression(literal)) return [];
  return literal.properties.flatMap((property) =>
    ts.isPropertyAssignment(property) && ts.isStringLiteralLike(property.initializer)
      ? [property.initializer.text]
      : [],
  );
}

function cataloguesIn(file: string): string[] {
  const source = ts.createSourceFile(file, readFileSync(file, 'utf8'), ts.ScriptTarget.Latest, true);
  const found: string[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isCallExpression(node) && node.expression.getText(source) === 'words' && node.arguments[1])
      found.push(...textsIn(node.arguments[1]));
    if (file.endsWith('.en.ts') && ts.isVariableDeclaration(node) && node.initializer)
      found.push(...textsIn(node.initializer));
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found;
}

/** What our catalogues say, in runs of at least three words: shorter ones may stand in anybody's text. */
export function catalogueTexts(): string[] {
  const files = ['core', 'web'].flatMap((folder) =>
    readdirSync(path.join(ROOT, folder), { recursive: true, encoding: 'utf8' })
      .filter((file) => /\.tsx?$/.test(file) && !/\.test\./.test(file))
      .map((file) => path.join(ROOT, folder, file)),
  );
  const texts = files.flatMap(cataloguesIn);
  const runs = texts.flatMap((text) => text.split(/\{\{[^}]*\}\}/)).map((run) => run.trim());
  return [
    ...new Set(runs.filter((run) => run.split(/\s+/).filter((word) => /[a-z]{2}/i.test(word)).length >= 3)),
  ];
}
