/** Sent by the record of a model: open it in the editor, or a variant of it. */
export const editModelEvent = 'visograph:edit-model';
export interface EditModelWish {
  modelId: string;
  variant: boolean;
}
