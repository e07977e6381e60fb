import type { ResultComponent } from './resultSheet';

/** Is the one other level that is shown the next better one? Apart from the sheet's making, which candidates never load. */
export const isNextLevel = ({
  otherLevels,
  hundredths,
}: Pick<ResultComponent, 'otherLevels' | 'hundredths'>): boolean =>
  otherLevels.length === 1 && otherLevels[0]!.hundredths > hundredths;
