import type { ItemDraft } from '../../server/papers/drafts';

/** An item of the demo, all of which are in their first version. */
export type Draft = Omit<ItemDraft, 'version'>;

export const firstVersion = (draft: Draft): ItemDraft => ({ ...draft, version: 1 });
