/** What the journal tells of one person's entries: enough to know what can be undone. */
export interface UndoNote {
  revision: number;
  undoes: number | null;
  redoes: number | null;
}

/**
 * The revisions a person can undo and redo next, from their own entries in order of revision: a new entry can be
 * undone and ends what could be redone; an undo moves an entry to what can be redone, a redo moves it back.
 */
export function undoStacks(notes: readonly UndoNote[]): { undo: number[]; redo: number[] } {
  const undo: number[] = [];
  const redo: number[] = [];
  for (const note of notes) {
    if (note.undoes !== null) {
      undo.pop();
      redo.push(note.undoes);
    } else if (note.redoes !== null) {
      redo.pop();
      undo.push(note.redoes);
    } else {
      undo.push(note.revision);
      redo.length = 0;
    }
  }
  return { undo, redo };
}
