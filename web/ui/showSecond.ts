const clock = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit', second: '2-digit' });

/** “10:14:07”, where the reader is. Apart from the other times: the desk does without their library. */
export const showSecond = (at: number): string => clock.format(at);
