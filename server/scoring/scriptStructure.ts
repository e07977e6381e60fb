import ts from 'typescript';
import type { StructureRun } from '../../core/kinds/evidence';
import { hasCycle, type Structure } from '../../core/programs/structure';

const MOST_NAMES = 5000;

type Parsed = ts.SourceFile & { readonly parseDiagnostics?: readonly ts.Diagnostic[] };

/** The name by which a function is called, where it has one. */
function nameOf(node: ts.Node): string | null {
  const named =
    ts.isFunctionDeclaration(node) || ts.isMethodDeclaration(node) || ts.isFunctionExpression(node)
      ? node.name
      : undefined;
  if (named && ts.isIdentifier(named)) return named.text;
  const { parent } = node;
  if (!ts.isArrowFunction(node) && !ts.isFunctionExpression(node)) return null;
  if (ts.isVariableDeclaration(parent) && ts.isIdentifier(parent.name)) return parent.name.text;
  if (ts.isPropertyAssignment(parent) && ts.isIdentifier(parent.name)) return parent.name.text;
  return null;
}

function calledBy(node: ts.Node): string | null {
  if (!ts.isCallExpression(node) && !ts.isNewExpression(node)) return null;
  const { expression } = node;
  if (ts.isIdentifier(expression)) return expression.text;
  return ts.isPropertyAccessExpression(expression) && ts.isIdentifier(expression.name)
    ? expression.name.text
    : null;
}

function importedBy(node: ts.Node): string | null {
  if ((ts.isImportDeclaration(node) || ts.isExportDeclaration(node)) && node.moduleSpecifier)
    return ts.isStringLiteral(node.moduleSpecifier) ? node.moduleSpecifier.text : null;
  if (!ts.isCallExpression(node) || node.arguments.length === 0) return null;
  const { expression } = node;
  const [given] = node.arguments;
  const loads =
    expression.kind === ts.SyntaxKind.ImportKeyword ||
    (ts.isIdentifier(expression) && expression.text === 'require');
  return loads && ts.isStringLiteral(given!) ? given.text : null;
}

const isLoop = (node: ts.Node): boolean =>
  ts.isForStatement(node) ||
  ts.isForInStatement(node) ||
  ts.isForOfStatement(node) ||
  ts.isWhileStatement(node) ||
  ts.isDoStatement(node);

/** Lines with a token: neither empty nor a comment alone. */
function linesOf(text: string, file: ts.SourceFile): number {
  const lines = new Set<number>();
  const visit = (node: ts.Node): void => {
    const children = node.getChildren(file);
    if (children.length > 0) return children.forEach(visit);
    if (node.getWidth(file) === 0) return;
    const [from, to] = [node.getStart(file), node.getEnd()].map(
      (at) => file.getLineAndCharacterOfPosition(at).line,
    );
    for (let line = from!; line <= to!; line++) lines.add(line);
  };
  if (text.trim() !== '') visit(file);
  return lines.size;
}

/** What script files are made of, by TypeScript's parser; null where one cannot be read. Texts of candidates: hostile. */
export function scriptStructure({ language, files }: StructureRun): Structure | null {
  const calls = new Map<string, Set<string>>();
  const [names, imports] = [new Set<string>(), new Set<string>()];
  let [loop, lines] = [false, 0];
  for (const { name, text } of files) {
    const kind = language === 'typescript' ? ts.ScriptKind.TS : ts.ScriptKind.JS;
    const parsed: Parsed = ts.createSourceFile(name, text, ts.ScriptTarget.Latest, true, kind);
    if ((parsed.parseDiagnostics?.length ?? 0) > 0) return null;
    const waiting: { node: ts.Node; within: string }[] = [{ node: parsed, within: '' }];
    for (let next = waiting.pop(); next; next = waiting.pop()) {
      const { node } = next;
      const own = nameOf(node);
      const within = own ?? next.within;
      if (own !== null && !calls.has(own)) calls.set(own, new Set());
      const called = calledBy(node);
      if (called !== null) calls.get(within)?.add(called);
      const imported = importedBy(node);
      if (imported !== null) imports.add(imported);
      if (ts.isIdentifier(node)) names.add(node.text);
      loop ||= isLoop(node);
      ts.forEachChild(node, (child) => void waiting.push({ node: child, within }));
    }
    lines += linesOf(text, parsed);
  }
  const sorted = [...names].sort().slice(0, MOST_NAMES);
  return { recursion: hasCycle(calls), loop, names: sorted, imports: [...imports].sort(), lines };
}
