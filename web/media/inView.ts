import { createContext } from 'react';

/** Whether what is drawn here is in view; pages that were left stay laid out. */
export const InView = createContext(true);
