/* Every fact has one owner; one file an area. */
export * from './staff';
export * from './papers';
export * from './rounds';
export * from './sittings';
export * from './review';
export * from './marking';
export * from './corrections';
export * from './results';
export * from './files';
