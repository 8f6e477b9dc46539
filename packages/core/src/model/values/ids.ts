import { v7 } from 'uuid';

/** A new row's id: a UUIDv7 (RFC 9562), made by whoever creates the row. */
export const newId = (): string => v7();
