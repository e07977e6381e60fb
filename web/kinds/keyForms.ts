import type { ComponentType } from 'react';
import type { KindName } from '../../core/kinds/kindNames';
import { ComponentShelf } from '../ui/ComponentShelf';
import type { KeyFormProps } from './keyFormProps';

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
