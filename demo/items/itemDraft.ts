import * as v from 'valibot';
import { keyKindOf } from '../../core/kinds/keyKinds';
import { itemSchema, type Item, type Part } from '../../core/papers/paper';

/** An item as written here; it is parsed like any other before it is stored. */
export interface ItemDraft extends Omit<Item, 'version' | 'parts'> {
  readonly parts: readonly Omit<Part, 'version'>[];
}

export const parseItem = (draft: ItemDraft): Item =>
  v.parse(itemSchema, {
    ...{ ...draft, version: 1 },
    parts: draft.parts.map((part) => ({ ...part, version: keyKindOf(part.kind).contentVersion })),
  });
