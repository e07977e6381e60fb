import type { BandsView, CorrectionPage } from '../../core/corrections/api';
import type { Read } from '../reading/read';
import { bandsView, correctionPage } from './pages';

export const correctionsRead: Read<{ readonly round: number; readonly target: string }, CorrectionPage> = {
  name: 'corrections',
  run: (reading, { round, target }) => correctionPage(reading, round, target),
};

export const bandsRead: Read<{ readonly round: number }, BandsView> = {
  name: 'bands',
  run: (reading, { round }) => bandsView(reading, round),
};

export const correctionReads = [correctionsRead, bandsRead];
