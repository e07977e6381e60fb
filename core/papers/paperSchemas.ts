import Joi from 'joi';
import { documentSchema } from '../documents/documentSchema';
import { readContent } from '../kinds/authoring';
import { kindNames } from '../kinds/kindNames';
import { keyKindOf } from '../kinds/keyKinds';
import { aidNames } from '../kit/aids';
import {
  anyText,
  listOf,
  matching,
  objectOf,
  oneOf,
  textOf,
  whole,
  type Members,
} from '../validation/shapes';
import { adaptiveSchema, measuresSchema } from './adaptiveSchemas';
import {
  navigations,
  type FullPaper,
  type Handout,
  type Item,
  type ItemEntry,
  type Paper,
  type Part,
  type Rules,
  type Section,
  type Source,
  type SourceTab,
} from './paper';

const key = matching(/^[a-z0-9-]{1,40}$/);
const letter = matching(/^[A-F]$/);
const text = textOf(20_000);
const minutes = Joi.number().min(1).max(600);

const tab: Members<SourceTab> = { title: text, body: documentSchema };
const source = objectOf<Source>({ key, tabs: listOf(objectOf<SourceTab>(tab), { least: 1, most: 6 }) });

/** Reads the content by its kind, and brings it up to the present version. */
const withContent: Joi.CustomValidator<Part> = (part, { error }) => {
  const kind = keyKindOf(part.kind);
  try {
    return { ...part, version: kind.contentVersion, content: readContent(kind, part.content, part.version) };
  } catch (problem) {
    return error('any.custom', { kind: part.kind, problem: String(problem) });
  }
};

const part = objectOf<Omit<Part, 'ruling'>>({
  key: letter,
  kind: oneOf(kindNames),
  version: whole(1),
  marks: whole(1, 100_000),
  minutes: Joi.number().min(0).allow(null),
  prompt: documentSchema,
  explanation: documentSchema.optional(),
  content: Joi.any(),
})
  .custom(withContent)
  .messages({ 'any.custom': '{{#kind}}: {{#problem}}' });

export const itemSchema = objectOf<Item>({
  key,
  version: whole(1),
  title: text,
  introduction: documentSchema,
  source: source.allow(null),
  parts: listOf(part, { least: 1, most: 6 }),
  measures: measuresSchema.optional(),
});

const itemEntry = objectOf<ItemEntry>({
  key,
  version: Joi.number(),
  page: key.allow(null),
  draw: key.allow(null),
});

const section = objectOf<Section>({
  key: letter,
  title: text,
  introduction: documentSchema,
  minutes: minutes.allow(null),
  handouts: listOf(objectOf<Handout>({ key, ...tab }), { most: 8 }),
  navigation: oneOf(navigations),
  aids: listOf(oneOf(aidNames)),
  shuffled: Joi.boolean(),
  draws: listOf(objectOf<Section['draws'][number]>({ draw: key, count: whole(1) })),
  items: listOf(itemEntry, { least: 1 }),
  adaptive: adaptiveSchema.optional(),
});

const paper: Members<Paper> = {
  key,
  version: whole(1),
  title: text,
  cover: documentSchema,
  minutes,
  warningMinutes: listOf(Joi.number()),
  sections: listOf(section, { least: 1, most: 6 }),
  bands: listOf(objectOf<Paper['bands'][number]>({ title: text, from: Joi.number() })),
  showRightAnswers: Joi.boolean(),
  showRoughWork: Joi.boolean(),
  rules: objectOf<Rules>({
    version: anyText,
    text: documentSchema,
    statements: listOf(objectOf<Rules['statements'][number]>({ key, text })),
  }),
};
export const paperSchema = objectOf<Paper>(paper);

export const fullPaperSchema = objectOf<FullPaper>({ ...paper, bank: listOf(itemSchema) });
