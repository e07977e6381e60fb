import { rehearsalLike } from '../../core/rehearsal/rehearsalLike';
import type { FullPaper } from '../../core/papers/paper';
import type { Db } from '../db/open';
import { notFound } from '../http/errors';
import { latestVersion, paperOfVersion } from '../papers/papers';
import { GALLERY, REHEARSAL } from '../papers/rehearsals';

export type Rehearsed =
  /** Made-up questions in the shape of this version of a paper. */
  | { readonly is: 'like'; readonly version: number }
  /** One question of every kind. */
  | { readonly is: 'gallery' }
  /** The real questions of a test that is over. */
  | { readonly is: 'practice'; readonly version: number };

function published(db: Db, key: string): FullPaper {
  const found = latestVersion(db, key);
  if (!found) throw notFound('noRehearsal');
  return found.paper;
}

/** The paper of a rehearsal or of practice. Refuses a rehearsal whose questions were never published. */
export function paperToRehearse(db: Db, of: Rehearsed): FullPaper {
  if (of.is === 'practice') return paperOfVersion(db, of.version);
  if (of.is === 'gallery') return published(db, GALLERY);
  const usual = published(db, REHEARSAL);
  const gallery = latestVersion(db, GALLERY);
  return rehearsalLike(paperOfVersion(db, of.version), gallery ? [usual, gallery.paper] : [usual]);
}
