import type { Content } from '../../core/kinds/contract';

/** What a form for a key is given: the part's content as it is judged now. It says what the key becomes. */
export interface KeyFormProps<Asked, Key> {
  readonly content: Content<Asked, Key>;
  /** Null while the form says no key that can be tried. */
  readonly onKey: (key: Key | null) => void;
}
