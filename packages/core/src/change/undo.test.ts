import { expect, test } from '@jest/globals';
import { undoStacks, type UndoNote } from './undo.ts';

const did = (revision: number): UndoNote => ({ revision, undoes: null, redoes: null });
const undid = (revision: number, undoes: number): UndoNote => ({ revision, undoes, redoes: null });
const redid = (revision: number, redoes: number): UndoNote => ({ revision, undoes: null, redoes });

test('steps are undone from the newest back, and redone in order', () => {
  expect(undoStacks([did(1), did(2), did(5)])).toEqual({ undo: [1, 2, 5], redo: [] });
  expect(undoStacks([did(1), did(2), undid(3, 2)])).toEqual({ undo: [1], redo: [2] });
  expect(undoStacks([did(1), did(2), undid(3, 2), undid(4, 1)])).toEqual({ undo: [], redo: [2, 1] });
  expect(undoStacks([did(1), did(2), undid(3, 2), undid(4, 1), redid(5, 1)])).toEqual({
    undo: [1],
    redo: [2],
  });
});

test('a new step ends what could be redone', () => {
  expect(undoStacks([did(1), undid(2, 1), did(3)])).toEqual({ undo: [3], redo: [] });
});
