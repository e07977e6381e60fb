import type { GridChoiceShown } from '../../../core/kinds/grid-choice/response';

/** The columns of the wide form: the statement, and as much for each category. */
export const columnsFor = ({ categories }: GridChoiceShown) => ({
  gridTemplateColumns: `minmax(0, 2fr) repeat(${categories.length}, minmax(3rem, 1fr))`,
});
