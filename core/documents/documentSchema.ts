import { walked } from '../validation/shapes';
import {
  hasMembers,
  isFlag,
  isList,
  isMatch,
  isNumber,
  isOneOf,
  isText,
  isVariant,
  isWhole,
  orNull,
  type Rule,
} from '../validation/walks';
import type { Block, Document, Inline } from './document';

const text = isText(20_000);
const sentence = isText(2_000, 1);
const sha256 = isMatch(/^[0-9a-f]{64}$/);
const count = isWhole(0, 1_000_000);
const seconds = isNumber(0, 4 * 60 * 60);
const tongue = { lang: isMatch(/^[a-z]{2,3}(-[A-Za-z0-9]{2,8})*$/), dir: isOneOf(['ltr', 'rtl']) };

const children = isList(isVariant('type', () => inlines));
const blocks = isList(isVariant('type', () => blockRules));

const node = (type: string, members: Readonly<Record<string, Rule>>): Rule =>
  hasMembers({ type: isOneOf([type]), ...members });

const formula = node('formula', { tex: sentence, says: orNull(sentence) });

const inlines: Readonly<Record<Inline['type'], Rule>> = {
  text: node('text', { text }),
  break: node('break', {}),
  strong: node('strong', { children }),
  emphasis: node('emphasis', { children }),
  deleted: node('deleted', { children }),
  code: node('code', { text }),
  formula,
  phrase: node('phrase', { key: isMatch(/^[a-z0-9-]{1,40}$/), children }),
  meaning: node('meaning', { says: sentence, children }),
  language: node('language', { ...tongue, children }),
};

const table = node('table', {
  align: isList(orNull(isOneOf(['left', 'center', 'right']))),
  head: isList(children),
  rows: isList(isList(children)),
});

const blockRules: Readonly<Record<Block['type'], Rule>> = {
  paragraph: node('paragraph', { children }),
  heading: node('heading', { level: isOneOf([1, 2, 3]), children }),
  list: node('list', { ordered: isFlag, start: count, items: isList(blocks) }),
  quote: node('quote', { blocks }),
  table,
  code: node('code', { text }),
  formula,
  divider: node('divider', {}),
  picture: node('picture', { file: sha256, description: sentence, caption: orNull(sentence) }),
  chart: node('chart', {
    chart: isOneOf(['line', 'bar', 'points']),
    title: sentence,
    description: sentence,
    across: sentence,
    up: sentence,
    table,
  }),
  audio: node('audio', {
    file: sha256,
    title: sentence,
    seconds,
    plays: orNull(isWhole(1, 20)),
    pausing: isFlag,
    transcript: orNull(blocks),
  }),
  transcript: node('transcript', { title: sentence, blocks }),
  video: node('video', {
    file: sha256,
    title: sentence,
    seconds,
    captions: orNull(sha256),
    description: sentence,
  }),
  pdf: node('pdf', { file: sha256, title: sentence, pages: count }),
  lines: node('lines', { start: count, lines: isList(children) }),
  language: node('language', { ...tongue, blocks }),
};

const document = hasMembers({ format: isOneOf([1]), blocks });

export const documentSchema = walked<Document>(document, 'text');
export const documentOrNull = walked<Document | null>(orNull(document), 'text or null');
