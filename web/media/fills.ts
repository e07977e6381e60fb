import { createContext } from 'react';

/** What is drawn here has the whole of its place, which scrolls for nobody else: a document alone in its tab or panel. */
export const Fills = createContext(false);
