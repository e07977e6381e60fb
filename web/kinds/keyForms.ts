import type { ComponentType } from 'react';
import type { KindName } from '../../core/kinds/kindNames';
import type { Content } from '../../core/kinds/contract';
import { ComponentShelf } from '../ui/ComponentShelf';

/** What a form for a key is given: the part's content as it is judged now. It says what the key becomes. */
export interface KeyFormProps<Asked, Key> {
  readonly content: Content<Asked, Key>;
  /** Null while the form says no key that can be tried. */
  readonly onKey: (key: Key | null) => void;
}

type Load = () => Promise<ComponentType<never>>;

/** The kinds whose keys are changed in a form. For others, the corrected question is brought as a file. */
const entries: Partial<Record<KindName, Load>> = {
  choice: async () => (await import('./choice/KeyForm')).KeyForm,
  code: async () => (await import('./code/KeyForm')).KeyForm,
  gaps: async () => (await import('./gaps/KeyForm')).KeyForm,
  number: async () => (await import('./number/KeyForm')).KeyForm,
};

export const hasKeyForm = (kind: KindName): boolean => entries[kind] !== undefined;

export const keyForms = new ComponentShelf<KindName, KeyFormProps<never, unknown>>((name) =>
  entries[name]!(),
);
