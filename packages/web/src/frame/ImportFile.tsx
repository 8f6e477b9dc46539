import { placePath } from '@visograph/core/model';
import type { ReactNode, RefObject } from 'react';
import { useWhereabouts } from '../data/location.ts';
import { ApiError } from '../data/api.ts';
import { callJob } from '../data/jobs.ts';
import { useProject } from '../data/project.tsx';
import { waitsText } from '../kit/jobText.ts';
import { FileInput } from '../kit/FileInput.tsx';

/**
 * Takes an exchange file from the person's disk and imports it: all of it, or nothing with the first reasons. A
 * network topology (RFC 8345) is taken too: its nodes become devices of the place everything is about.
 */
export function ImportFile({ input }: { input: RefObject<HTMLInputElement | null> }): ReactNode {
  const { project, plan, sync } = useProject();
  const { scopeId } = useWhereabouts();
  const take = async (file: File): Promise<void> => {
    try {
      const text = await file.text();
      const place = placePath(sync.current().network, scopeId);
      const data = text.includes('ietf-network:networks')
        ? await callJob('POST /topology', { query: { place }, body: text })
        : null;
      const done = await callJob(
        'POST /projects/:project/exchange',
        {
          params: { project: project.id },
          query: { plan: plan ?? undefined },
          body: data === null ? text : JSON.stringify(data),
        },
        {
          onProgress: (progress) => {
            const how = progress.writing ? 'is being written …' : 'is being read …';
            const text = progress.ahead > 0 ? waitsText(progress) : how;
            sync.announce({ tone: 'ok', text: `${file.name} ${text}` });
          },
        },
      );
      sync.announce({
        tone: 'ok',
        text: `${file.name}: ${done.created} rows added, ${done.updated} changed.`,
      });
    } catch (error) {
      sync.announce({
        tone: 'bad',
        text: `${file.name}: ${error instanceof ApiError ? error.detail : String(error)}`,
      });
    }
  };
  return (
    <FileInput
      input={input}
      label="Project file"
      accept=".json,application/json"
      onFile={(file) => void take(file)}
    />
  );
}
