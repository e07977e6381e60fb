/* Writes `docs/paper-schema.json`: what the file of a paper that is to be imported may hold (JSON Schema, draft 2020-12). */
import { readFileSync, writeFileSync } from 'node:fs';
import Joi from 'joi';
import { format } from 'oxfmt';
import { adaptiveSchema, measuresSchema } from '../core/papers/adaptiveSchemas';
import { navigations } from '../core/papers/paper';
import { aidNames, usualAids } from '../core/kit/aids';
import { keyKinds } from '../core/kinds/keyKinds';
import { anyText, listOf, matching, objectOf, oneOf, textOf, whole } from '../core/validation/shapes';

/** An object of the file: it may hold a remark besides its members. */
const commented = (members: Readonly<Record<string, Joi.AnySchema>>): Joi.ObjectSchema =>
  objectOf<Record<string, unknown>>({
    $comment: anyText.optional().description('A remark of your own. It is not read.'),
    ...members,
  });
const markdown = (says: string) => textOf(20_000).description(`Markdown. ${says}`);
const key = (says: string) => matching(/^[a-z0-9-]{1,40}$/).description(says);
const letter = matching(/^[A-F]$/).description('A, B, C … in their order.');
const words = (says: string) => textOf(20_000).description(says);
const minutes = (says: string) => Joi.number().min(1).max(600).description(says);

/** A half of a kind's content; what is left out is as in a new part. */
function partly(half: Joi.ObjectSchema): Joi.ObjectSchema {
  const names = Object.keys((half.describe() as { readonly keys?: object }).keys ?? {});
  return half.fork(names, (member) => member.optional());
}

const parts = Object.values(keyKinds).map((kind) =>
  commented({
    key: letter,
    kind: oneOf([kind.name]),
    marks: whole(1).description('In hundredths: 100 is one mark.'),
    minutes: Joi.number().allow(null).optional().description('How long it takes, for the pace line.'),
    prompt: markdown('What is asked.'),
    explanation: markdown('Why the right answer is right: shown on the result sheet with it.').optional(),
    content: commented({ asked: partly(kind.asked), key: partly(kind.key) }).description(
      'What candidates see, and what is right. What is left out is as in a new part of this kind.',
    ),
  }),
);

const tab = commented({ title: words('On the tab.'), body: markdown('The document.') });
const source = commented({
  key: key('Questions whose sources have the same key stand beside the same source.'),
  tabs: listOf(tab, { least: 1, most: 6 }),
});

const item = commented({
  key: key('Names the item in the bank. A changed item of the same key becomes its next version.'),
  title: words('Short, as it stands on the rail and in lists.'),
  introduction: markdown('Before the question; it can be folded away.').optional(),
  page: key('Neighbours with the same page are shown together, one below the other.').allow(null).optional(),
  draw: key(
    'Of the questions of a section with the same draw, each candidate has as many as the section says.',
  )
    .allow(null)
    .optional(),
  source: source.allow(null).optional(),
  parts: listOf(Joi.alternatives(...parts), { least: 1, most: 6 }),
  measures: measuresSchema
    .optional()
    .description('What an adaptive section chooses it by. Candidates never see it.'),
});

const handout = commented({
  key: key('Names the handout within its section.'),
  title: words('In the kit and on the panel.'),
  body: markdown('The document.'),
});

const draw = commented({
  draw: key('As its questions name it.'),
  count: whole(1).description('So many are drawn.'),
});

const section = commented({
  key: letter,
  title: words('Of the section.'),
  introduction: markdown('Above its questions.').optional(),
  minutes: minutes('A limit of its own, from when it is entered.').allow(null).optional(),
  handouts: listOf(handout, { most: 8 })
    .optional()
    .description('What may be consulted all through the section.'),
  navigation: oneOf(navigations)
    .optional()
    .description('How one goes through it. Without it: free. The others show each question once.'),
  aids: listOf(oneOf(aidNames))
    .optional()
    .description(
      `The aids that it allows. Without it: ${usualAids.join(', ')}. Size of the text, colours and keys are always there.`,
    ),
  shuffled: Joi.boolean()
    .optional()
    .description('Whether each candidate has its questions in another order.'),
  draws: listOf(draw)
    .optional()
    .description('Draws of this section. The questions of a draw are worth the same.'),
  items: listOf(item, { least: 1 }),
  adaptive: adaptiveSchema
    .optional()
    .description('Its questions are chosen by what was answered so far: their pool is `items`.'),
});

const statement = commented({ key: anyText, text: words('A line to be ticked.') });
const rules = commented({
  version: anyText.optional(),
  text: markdown('What candidates accept before the test.'),
  statements: listOf(statement).optional(),
});

const paper = commented({
  $schema: anyText.optional(),
  key: key('Names the paper. Imported again, it becomes its next version.'),
  title: words('The title of the test.'),
  cover: markdown('On the page before the start.').optional(),
  minutes: minutes('The time for the whole paper.'),
  warningMinutes: listOf(Joi.number())
    .optional()
    .description('When a candidate is told how much time is left. Without it: 5.'),
  rules,
  sections: listOf(section, { least: 1, most: 6 }),
  showRoughWork: Joi.boolean()
    .optional()
    .description('Whether assessors see the rough work. It is never marked.'),
  bands: listOf(commented({ title: anyText, from: Joi.number() }))
    .optional()
    .description('From the lowest; `from` in hundredths of a mark.'),
  showRightAnswers: Joi.boolean().optional(),
});

const FORMULA = 'A formula, as `held_march - out_march` or `A.total * 2`.';

/** What authors write as text where the published paper holds a tree, by the name of the tree (`walked`). */
const authored: Readonly<Record<string, object>> = {
  text: { type: 'string', description: 'Markdown.' },
  'text or null': { type: ['string', 'null'], description: 'Markdown.' },
  formula: { type: 'string', description: FORMULA },
  'formula or null': { type: ['string', 'null'], description: FORMULA },
  condition: { type: 'string', description: 'A condition, as `net_year < 0`.' },
};

const asAuthored = (_: string, node: unknown): unknown => {
  const { description } = (node ?? {}) as { readonly description?: unknown };
  return typeof description === 'string' && Object.hasOwn(authored, description)
    ? authored[description]
    : node;
};

const schema = paper['~standard'].jsonSchema.input({ target: 'draft-2020-12' });
const made = JSON.stringify(
  {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title: 'A paper for Clear Sitting',
    ...schema,
  },
  asAuthored,
);
const file = 'docs/paper-schema.json';
const { code } = await format(file, made, { printWidth: 110 });
if (!process.argv.includes('--check')) writeFileSync(file, code);
else if (readFileSync(file, 'utf8') !== code) {
  console.error(`${file} is older than the kinds of questions. Run: npm run paper-schema`);
  process.exit(1);
}
