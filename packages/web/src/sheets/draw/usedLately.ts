/** Models that were put on sheets lately in this browser, newest first, kept for each project. */
const most = 6;
const key = (projectId: string): string => `visograph.usedLately.${projectId}`;

export function usedLately(projectId: string): string[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(key(projectId)) ?? '[]');
    return Array.isArray(kept) ? kept.filter((id) => typeof id === 'string') : [];
  } catch {
    // A list somebody else has written is as good as none.
    return [];
  }
}

export function noteUsed(projectId: string, modelId: string): void {
  const others = usedLately(projectId).filter((id) => id !== modelId);
  localStorage.setItem(key(projectId), JSON.stringify([modelId, ...others].slice(0, most)));
}
