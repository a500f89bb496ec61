import { createContext } from 'react';

/** Where in the strip above every screen its place and controls go. */
export const Strip = createContext<HTMLElement | null>(null);
