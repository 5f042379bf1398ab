/** A file that cannot be read; the message is for the player. */
export class NotReadable extends Error {}
