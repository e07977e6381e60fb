/** The keys under which the papers of rehearsals are published: the usual one, and one with every kind of question. */
export const REHEARSAL = 'rehearsal';
export const GALLERY = 'gallery';
export const REHEARSALS: readonly string[] = [REHEARSAL, GALLERY];
