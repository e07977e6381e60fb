/* Writes `docs/paper-schema.json`: what the file of a paper that is to be imported may hold (JSON Schema, draft 7). */
import { readFileSync, writeFileSync } from 'node:fs';
import { toJsonSchema } from '@valibot/to-json-schema';
import { format } from 'oxfmt';
import * as v from 'valibot';
import { documentSchema } from '../core/documents/documentSchema';
import { conditionSchema, formulaSchema } from '../core/formulas/formula';
import { navigations } from '../core/papers/paper';
import { aidNames, usualAids } from '../core/kit/aids';
import { keyKinds } from '../core/kinds/keyKinds';

const comment = {
  $comment: v.optional(v.pipe(v.string(), v.description('A remark of your own. It is not read.'))),
};
const markdown = (words: string) =>
  v.pipe(v.string(), v.maxLength(20_000), v.description(`Markdown. ${words}`));
const key = (words: string) => v.pipe(v.string(), v.regex(/^[a-z0-9-]{1,40}$/), v.description(words));
const letter = v.pipe(v.string(), v.regex(/^[A-F]$/), v.description('A, B, C … in their order.'));
const words = (says: string) => v.pipe(v.string(), v.maxLength(20_000), v.description(says));
const minutes = (says: string) => v.pipe(v.number(), v.minValue(1), v.maxValue(600), v.description(says));

type Half = v.StrictObjectSchema<v.ObjectEntries, undefined>;
const partly = (half: unknown) => v.partial(half as Half);

const parts = Object.values(keyKinds).map((kind) =>
  v.strictObject({
    ...comment,
    key: letter,
    kind: v.literal(kind.name),
    marks: v.pipe(v.number(), v.integer(), v.minValue(1), v.description('In hundredths: 100 is one mark.')),
    minutes: v.optional(
      v.nullable(v.pipe(v.number(), v.description('How long it takes, for the pace line.'))),
    ),
    prompt: markdown('What is asked.'),
    content: v.pipe(
      v.strictObject({ ...comment, asked: partly(kind.asked), key: partly(kind.key) }),
      v.description(
        'What candidates see, and what is right. What is left out is as in a new part of this kind.',
      ),
    ),
  }),
);

const item = v.strictObject({
  ...comment,
  key: key('Names the item in the bank. A changed item of the same key becomes its next version.'),
  title: words('Short, as it stands on the rail and in lists.'),
  introduction: v.optional(markdown('Before the question; it can be folded away.')),
  page: v.optional(v.nullable(key('Neighbours with the same page are shown together, one below the other.'))),
  draw: v.optional(
    v.nullable(
      key(
        'Of the questions of a section with the same draw, each candidate has as many as the section says.',
      ),
    ),
  ),
  source: v.optional(
    v.nullable(
      v.strictObject({
        ...comment,
        key: key('Questions whose sources have the same key stand beside the same source.'),
        tabs: v.pipe(
          v.array(
            v.strictObject({ ...comment, title: words('On the tab.'), body: markdown('The document.') }),
          ),
          v.minLength(1),
          v.maxLength(6),
        ),
      }),
    ),
  ),
  parts: v.pipe(v.array(v.union(parts)), v.minLength(1), v.maxLength(6)),
});

const paper = v.strictObject({
  ...comment,
  $schema: v.optional(v.string()),
  key: key('Names the paper. Imported again, it becomes its next version.'),
  title: words('The title of the test.'),
  cover: v.optional(markdown('On the page before the start.')),
  minutes: minutes('The time for the whole paper.'),
  warningMinutes: v.optional(
    v.pipe(
      v.array(v.number()),
      v.description('When a candidate is told how much time is left. Without it: 5.'),
    ),
  ),
  rules: v.strictObject({
    ...comment,
    version: v.optional(v.string()),
    text: markdown('What candidates accept before the test.'),
    statements: v.optional(
      v.array(v.strictObject({ ...comment, key: v.string(), text: words('A line to be ticked.') })),
    ),
  }),
  sections: v.pipe(
    v.array(
      v.strictObject({
        ...comment,
        key: letter,
        title: words('Of the section.'),
        introduction: v.optional(markdown('Above its questions.')),
        minutes: v.optional(v.nullable(minutes('A limit of its own, from when it is entered.'))),
        handouts: v.optional(
          v.pipe(
            v.array(
              v.strictObject({
                ...comment,
                key: key('Names the handout within its section.'),
                title: words('In the kit and on the panel.'),
                body: markdown('The document.'),
              }),
            ),
            v.maxLength(8),
            v.description('What may be consulted all through the section.'),
          ),
        ),
        navigation: v.optional(
          v.pipe(
            v.picklist(navigations),
            v.description('How one goes through it. Without it: free. The others show each question once.'),
          ),
        ),
        aids: v.optional(
          v.pipe(
            v.array(v.picklist(aidNames)),
            v.description(
              `The aids that it allows. Without it: ${usualAids.join(', ')}. Size of the text, colours and keys are always there.`,
            ),
          ),
        ),
        shuffled: v.optional(
          v.pipe(v.boolean(), v.description('Whether each candidate has its questions in another order.')),
        ),
        draws: v.optional(
          v.pipe(
            v.array(
              v.strictObject({
                ...comment,
                draw: key('As its questions name it.'),
                count: v.pipe(v.number(), v.integer(), v.minValue(1), v.description('So many are drawn.')),
              }),
            ),
            v.description('Draws of this section. The questions of a draw are worth the same.'),
          ),
        ),
        items: v.pipe(v.array(item), v.minLength(1)),
      }),
    ),
    v.minLength(1),
    v.maxLength(6),
  ),
  showRoughWork: v.optional(
    v.pipe(v.boolean(), v.description('Whether assessors see the rough work. It is never marked.')),
  ),
  bands: v.optional(
    v.pipe(
      v.array(v.strictObject({ ...comment, title: v.string(), from: v.number() })),
      v.description('From the lowest; `from` in hundredths of a mark.'),
    ),
  ),
  showRightAnswers: v.optional(v.boolean()),
});

/** What authors write as text, where the published paper holds a tree. */
const authored = new Map<unknown, { readonly type: 'string'; readonly description: string }>([
  [documentSchema, { type: 'string', description: 'Markdown.' }],
  [
    formulaSchema,
    { type: 'string', description: 'A formula, as `held_march - out_march` or `A.total * 2`.' },
  ],
  [conditionSchema, { type: 'string', description: 'A condition, as `net_year < 0`.' }],
]);

const schema = toJsonSchema(paper, {
  errorMode: 'ignore',
  overrideSchema: ({ valibotSchema }) => authored.get(valibotSchema),
});
const text = JSON.stringify({ title: 'A paper for Clear Sitting', ...schema });
const file = 'docs/paper-schema.json';
const { code: made } = await format(file, text, { printWidth: 110 });
if (!process.argv.includes('--check')) writeFileSync(file, made);
else if (readFileSync(file, 'utf8') !== made) {
  console.error(`${file} is older than the kinds of questions. Run: npm run paper-schema`);
  process.exit(1);
}
