/** How far a program gives way to the server, as the system counts it (0 to 19). */
export const NICENESS = 5;
