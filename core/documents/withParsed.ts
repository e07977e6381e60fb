import type { Message } from '../messages/message';
import type { Issue } from '../kinds/contract';

/** What became of a field that authors write as text. */
export interface Parsed {
  readonly value: unknown;
  readonly issues: readonly { readonly severity: Issue['severity']; readonly message: Message }[];
}

/** Reads Markdown or a formula; given from outside, since the parsers are the server's. */
export type ParseField = (text: string) => Parsed;

type Path = Issue['path'];

interface Found {
  readonly value: unknown;
  readonly issues: readonly Issue[];
}

function atPath(value: unknown, steps: readonly string[], path: Path, parse: ParseField): Found {
  const [step, ...rest] = steps;
  if (step === undefined) {
    // A tree was parsed before and stays as it is; anything else is the schema's to refuse.
    if (typeof value !== 'string') return { value, issues: [] };
    const { value: tree, issues } = parse(value);
    return { value: tree, issues: issues.map((issue) => ({ ...issue, path })) };
  }
  if (typeof value !== 'object' || value === null) return { value, issues: [] };
  if (step === '*') {
    if (!Array.isArray(value)) return { value, issues: [] };
    const found = value.map((entry: unknown, i) => atPath(entry, rest, [...path, i], parse));
    return { value: found.map((one) => one.value), issues: found.flatMap((one) => one.issues) };
  }
  if (!Object.hasOwn(value, step)) return { value, issues: [] };
  const inner = atPath((value as Record<string, unknown>)[step], rest, [...path, step], parse);
  const changed = Array.isArray(value)
    ? value.with(Number(step), inner.value)
    : { ...value, [step]: inner.value };
  return { value: changed, issues: inner.issues };
}

/**
 * A draft with the text of these fields as trees, and what is wrong with it. A field is named by its path, as
 * `source.tabs.*.body`; a path that the draft does not have is passed over.
 */
export function withParsed(draft: unknown, fields: readonly string[], parse: ParseField): Found {
  return fields.reduce<Found>(
    (made, field) => {
      const { value, issues } = atPath(made.value, field.split('.'), [], parse);
      return { value, issues: [...made.issues, ...issues] };
    },
    { value: draft, issues: [] },
  );
}
