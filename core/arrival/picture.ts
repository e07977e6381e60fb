import type { RoundSettings } from '../rounds/api';

/** Is a picture of the candidate taken before the start? Where a camera is demanded, or an identity document is compared. */
export const takesPicture = ({
  checks,
  identityPicture,
}: Pick<RoundSettings, 'checks' | 'identityPicture'>): boolean =>
  checks.includes('camera') || identityPicture;
