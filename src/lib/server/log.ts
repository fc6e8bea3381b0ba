/** The server's log: one line of JSON an event. */
import pino from 'pino';

export const log = pino({ name: 'oculon' });
