import { canonicalJson } from '../../core/journal/canonicalJson';
import type { Part } from '../../core/papers/paper';
import { conflict, unreadable } from '../http/errors';
import { partIn } from './wanted';
import type { HasDb } from '../db/open';
import type { HasPaperReader } from '../papers/paperReader';

/** What of a part is asked: all but its key, and what only explains it. */
const askedOf = ({ key, kind, marks, prompt, content }: Part) =>
  canonicalJson({ key, kind, marks, prompt, asked: content.asked });

/**
 * The key of a part as a corrected file has it: a paper's file, or one with this question alone. What was asked must be the
 * same, since candidates have answered it.
 */
export async function keyOfFile(
  { db, paperReader }: HasDb & HasPaperReader,
  round: number,
  target: string,
  bytes: Uint8Array,
): Promise<{ readonly key: unknown }> {
  const { item, letter } = partIn(db, round, target);
  const { issues, paper } = await paperReader.read({ bytes, items: {}, papers: {} });
  if (!paper) {
    const severe = issues.filter(({ severity }) => severity === 'severe');
    throw unreadable('correctedFile', severe.slice(0, 20));
  }
  const brought = paper.bank.find(({ key }) => key === item.key);
  const part = brought?.parts.find(({ key }) => key === letter);
  if (!part) throw conflict('file-without-question');
  const own = item.parts.find(({ key }) => key === letter)!;
  if (askedOf(part) !== askedOf(own)) throw conflict('file-asks-otherwise');
  return { key: part.content.key };
}
