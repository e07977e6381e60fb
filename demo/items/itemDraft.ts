import type { Item } from '../../core/papers/paper';

/** An item as written here; it is parsed like any other before it is stored. */
export type ItemDraft = Omit<Item, 'version'>;
