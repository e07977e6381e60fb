import type { StaffRow } from '../rounds/api';

/** An account of the staff, as coordinators see it. */
export interface StaffAccount extends StaffRow {
  readonly email: string;
  /** When it was disabled, ms since 1970; null while its owner can sign in. */
  readonly disabledAt: number | null;
  /** Whether it is the one of who asks. */
  readonly own: boolean;
  /** In how many browsers its owner is signed in. */
  readonly sessions: number;
}

export interface PasswordChange {
  readonly current: string;
  /** At least 12 characters. */
  readonly wanted: string;
}
