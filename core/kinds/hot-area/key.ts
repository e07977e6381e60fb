import type { Document, PictureNode } from '../../documents/document';
import { message } from '../../messages/message';
import type { Content, Fact, Issue, KeyKind } from '../contract';
import { plainKey } from '../plainKey';
import { hasTwice, inOrderOf, keysOf, textOf } from '../shared/entries';
import { advice, severe } from '../shared/issues';
import type { HotAreaAsked, HotAreaKey } from './content';
import type { HotAreaResponse, HotAreaShown } from './response';
import { areaComponents, scoreHotArea } from './score';
import { holds, insideOf } from './shapes';
import { askedSchema, keySchema, responseSchema } from './schemas';

type HotContent = Content<HotAreaAsked, HotAreaKey>;

const pictureIn = ({ blocks }: Document): PictureNode | null => {
  const [only, more] = blocks;
  return only?.type === 'picture' && !more ? only : null;
};

function check({ asked, key }: HotContent): Issue[] {
  const keys = keysOf(asked.areas);
  const issues: Issue[] = [];
  if (!pictureIn(asked.picture)) issues.push(severe(['asked', 'picture'], message('hot-area.noPicture')));
  if (hasTwice(keys)) issues.push(severe(['asked', 'areas'], message('author.sameKey')));
  if (asked.areas.some(({ text }) => text.trim() === ''))
    issues.push(severe(['asked', 'areas'], message('hot-area.noName')));
  if (hasTwice(key.right) || key.right.some((one) => !keys.includes(one)))
    issues.push(severe(['key', 'right'], message('hot-area.rightUnknown')));
  if (key.right.length > asked.limit)
    issues.push(severe(['asked', 'limit'], message('hot-area.limitTooSmall')));
  if (asked.mode === 'choose' && asked.limit >= keys.length)
    issues.push(severe(['asked', 'limit'], message('hot-area.limitTooLarge')));
  if (key.right.length < asked.limit) issues.push(advice(['asked', 'limit'], message('hot-area.limitAbove')));
  return issues;
}

function facts({ asked, key }: HotContent, { chosen, marks }: HotAreaResponse): Fact[] {
  const nameAt = (point: (typeof marks)[number]) => {
    const inside = asked.areas.filter(({ shape }) => holds(shape, point));
    return inside.find((area) => key.right.includes(area.key)) ?? inside[0];
  };
  const fact = (area: { readonly key: string; readonly text: string } | undefined): Fact => {
    const right = area !== undefined && key.right.includes(area.key);
    // A mark outside every area is told by its place alone.
    return { component: right ? area.key : key.right[0]!, type: 'option', answer: area?.text ?? '—', right };
  };
  return [
    ...chosen.map((one) => fact({ key: one, text: textOf(asked.areas, one) })),
    ...marks.map((point) => fact(nameAt(point))),
  ];
}

export const hotAreaKey: KeyKind<HotAreaAsked, HotAreaKey, HotAreaShown, HotAreaResponse, null> = {
  ...plainKey,
  name: 'hot-area',
  asked: askedSchema,
  key: keySchema,
  response: responseSchema,
  documents: ['asked.picture'],
  blank: () => ({
    asked: {
      picture: '',
      mode: 'choose',
      areas: ['a', 'b'].map((key) => ({
        key,
        text: '',
        shape: { is: 'rectangle', x: 0, y: 0, width: 100, height: 100 },
      })),
      limit: 1,
    },
    key: { right: ['a'] },
  }),
  check,
  arrange: () => null,
  show: ({ picture, mode, areas, limit }) => ({
    picture: pictureIn(picture)!,
    mode,
    areas: areas.map(({ key, text, shape }) => ({ key, text, shape })),
    limit,
  }),
  components: areaComponents,
  score: scoreHotArea,
  rightResponse: ({ asked, key }) =>
    asked.mode === 'choose'
      ? { chosen: [...key.right], marks: [] }
      : { chosen: [], marks: inOrderOf(asked.areas, key.right).map(({ shape }) => insideOf(shape)) },
  facts: ({ content, response }) => facts(content, response),
};
