import { message } from '../../messages/message';
import { say } from '../../messages/words';
import type { Content, Fact, Issue, KeyKind } from '../contract';
import { plainKey } from '../plainKey';
import { isSoundAxis } from '../shared/axis';
import { hasTwice, keysOf } from '../shared/entries';
import { severe } from '../shared/issues';
import { missingOf, plot, tellObject } from './candidate';
import type { PlotAsked, PlotKey } from './content';
import { drawnOf, type PlotResponse, type PlotShown } from './response';
import { isRightObject, objectComponents, scorePlot } from './score';
import { askedSchema, keySchema, responseSchema } from './schemas';

type PlotContent = Content<PlotAsked, PlotKey>;

const show = ({ x, y, objects }: PlotAsked, locale: string): PlotShown => ({
  x: { ...x },
  y: { ...y },
  objects: objects.map(({ key, text, sort, count }) => ({ key, text, sort, count })),
  locale,
});

function check({ asked, key }: PlotContent): Issue[] {
  const issues: Issue[] = [];
  for (const axis of ['x', 'y'] as const)
    if (!isSoundAxis(asked[axis])) issues.push(severe(['asked', axis], message('plot.axis')));
  if (issues.length > 0) return issues;
  const keys = keysOf(asked.objects);
  if (hasTwice(keys)) issues.push(severe(['asked', 'objects'], message('author.sameKey')));
  const misfit = plot.misfit(show(asked, 'en'), { objects: key.objects });
  if (misfit) issues.push(severe(['key', 'objects'], misfit));
  for (const object of asked.objects) {
    const path = ['key', 'objects', object.key];
    if (missingOf(object, drawnOf(key, object.key))) issues.push(severe(path, message('plot.noRight')));
  }
  if (Object.entries(key.tolerance).some(([one, text]) => !keys.includes(one) || text.startsWith('-')))
    issues.push(severe(['key', 'tolerance'], message('plot.tolerance')));
  return issues;
}

const facts = (content: PlotContent, response: PlotResponse, locale: string): Fact[] =>
  content.asked.objects.flatMap((object): Fact[] => {
    const drawn = drawnOf(response, object.key);
    if (drawn.points.length === 0) return [];
    return [
      {
        component: object.key,
        type: 'drawing',
        answer: tellObject(show(content.asked, locale), object, drawn, say),
        right: isRightObject(content, object, drawn),
      },
    ];
  });

const blankAxis = { from: '-5', to: '5', step: '1', snaps: 1, label: '' };

export const plotKey: KeyKind<PlotAsked, PlotKey, PlotShown, PlotResponse, null> = {
  ...plainKey,
  name: 'plot',
  asked: askedSchema,
  key: keySchema,
  response: responseSchema,
  blank: () => ({
    asked: {
      x: { ...blankAxis, label: 'x' },
      y: { ...blankAxis, label: 'y' },
      objects: [{ key: 'a', text: '', sort: 'point', count: null }],
    },
    key: { objects: {}, tolerance: {} },
  }),
  check,
  arrange: () => null,
  show: (asked, _, { locale }) => show(asked, locale),
  components: ({ asked }, marks) => objectComponents(asked, marks),
  score: scorePlot,
  rightResponse: ({ key }) => ({ objects: { ...key.objects } }),
  facts: ({ content, response, place: { locale } }) => facts(content, response, locale),
};
