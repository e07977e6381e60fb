/** What a program's text is made of, for conditions on it. */
export interface Structure {
  /** Is there a function that reaches itself through calls by name? */
  readonly recursion: boolean;
  readonly loop: boolean;
  /** Names that are used or defined, those behind a point too; at most 5,000. */
  readonly names: readonly string[];
  /** Modules that are imported. */
  readonly imports: readonly string[];
  /** Lines that are neither empty nor a comment alone. */
  readonly lines: number;
}

/** Does a function reach itself, by calls from function to function? */
export function hasCycle(calls: ReadonlyMap<string, ReadonlySet<string>>): boolean {
  const done = new Set<string>();
  return [...calls.keys()].some((start) => {
    if (done.has(start)) return false;
    const [seen, waiting] = [new Set<string>(), [...calls.get(start)!]];
    for (let name = waiting.pop(); name !== undefined; name = waiting.pop()) {
      if (name === start) return true;
      if (seen.has(name)) continue;
      seen.add(name);
      waiting.push(...(calls.get(name) ?? []));
    }
    done.add(start);
    return false;
  });
}

/**
 * Looks at a program by Python's own parser, in the sandbox: `look(text)` gives calls by function (each function with an empty call too), whether there is a
 * loop, names, imports and the number of lines; nothing where it cannot be read.
 */
export const PYTHON_STRUCTURE = `
import ast, io, tokenize

def look(text):
    try:
        tree = ast.parse(text)
    except (SyntaxError, ValueError, RecursionError, MemoryError):
        return None
    calls, names, imports, loop = set(), set(), set(), False
    waiting = [(tree, '')]
    while waiting:
        node, within = waiting.pop()
        if isinstance(node, (ast.FunctionDef, ast.AsyncFunctionDef)):
            within = node.name
            names.add(node.name)
            calls.add((within, ''))
        elif isinstance(node, ast.ClassDef):
            names.add(node.name)
        elif isinstance(node, ast.Assign) and isinstance(node.value, ast.Lambda) and isinstance(node.targets[0], ast.Name):
            calls.add((node.targets[0].id, ''))
            for child in ast.iter_child_nodes(node.value):
                waiting.append((child, node.targets[0].id))
        if isinstance(node, (ast.For, ast.AsyncFor, ast.While, ast.comprehension)):
            loop = True
        elif isinstance(node, ast.Call):
            target = node.func
            called = target.id if isinstance(target, ast.Name) else target.attr if isinstance(target, ast.Attribute) else None
            if called is not None:
                calls.add((within, called))
        if isinstance(node, ast.Name):
            names.add(node.id)
        elif isinstance(node, ast.Attribute):
            names.add(node.attr)
        elif isinstance(node, ast.Import):
            imports.update(one.name for one in node.names)
        elif isinstance(node, ast.ImportFrom) and node.module:
            imports.add(node.module)
            names.update(one.name for one in node.names)
        for child in ast.iter_child_nodes(node):
            waiting.append((child, within))
    lines = set()
    quiet = {tokenize.COMMENT, tokenize.NL, tokenize.NEWLINE, tokenize.INDENT, tokenize.DEDENT, tokenize.ENCODING, tokenize.ENDMARKER}
    for token in tokenize.generate_tokens(io.StringIO(text).readline):
        if token.type not in quiet:
            lines.update(range(token.start[0], token.end[0] + 1))
    return {'calls': sorted(calls)[:5000], 'loop': loop, 'names': sorted(names)[:5000], 'imports': sorted(imports)[:500], 'lines': len(lines)}
`;
