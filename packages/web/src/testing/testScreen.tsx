/** Screens in tests: the real sync, router and contexts over a network that is held in memory where a server would be. */
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { applyChanges, type Change } from '@visograph/core/change';
import { kindNames, newId, Network, type Kind, type Row } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { MemoryRouter, Route, Routes, useLocation } from 'react-router';
import { ProjectProvider, useProject } from '../data/project.tsx';
import type { ProjectSummary } from '../data/session.ts';
import { WorkspaceProvider } from '../data/workspace.tsx';
import { ThemeProvider } from '../theme/theme.tsx';

interface Held {
  network: () => Network;
  /** Sentences of what was done, in order. */
  steps: () => readonly string[];
  /** The path and what is asked in it. */
  at: () => { path: string; query: URLSearchParams };
}

/** As much of a response as the application asks: jsdom has none. */
const answer = (status: number, body: unknown): Pick<Response, 'ok' | 'status' | 'json'> => ({
  ok: status < 400,
  status,
  json: () => Promise.resolve(JSON.parse(JSON.stringify(body))),
});

class Silent {
  static readonly OPEN = 1;
  readyState = 0;
  close(): void {
    this.readyState = 3;
  }
  send(): void {
    // Nobody hears it.
  }
}

/** What stands in for the server: one project, whose changes are judged as the server judges them. */
function held(start: Network, role: ProjectSummary['role']): Omit<Held, 'at'> {
  let network = start;
  let revision = 1;
  const steps: string[] = [];
  const entries: object[] = [];
  const fetched = async (path: string, init: RequestInit = {}) => {
    const method = init.method ?? 'GET';
    const called = path.split('?')[0]?.split('/').at(-1);
    if (method === 'GET' && called === 'network') {
      const rows = Object.fromEntries(kindNames.map((kind) => [kind, [...network.all(kind)]]));
      return answer(200, { revision, line: null, base: null, rows });
    }
    if (method === 'POST' && called === 'changes' && role !== 'reader') {
      const { id, changes, sentence } = JSON.parse(String(init.body)) as {
        id: string;
        changes: Change[];
        sentence: string;
      };
      const made = applyChanges(network, changes);
      if (!made.ok) return answer(409, { detail: made.problems[0]?.message, problems: made.problems });
      network = made.network;
      steps.push(sentence);
      const entry = { id, revision: ++revision, sentence, changes: made.changes, author: 'Anna Kerr' };
      const noted = {
        ...entry,
        ...{ at: '2026-11-29T08:00:00Z', undoes: null, redoes: null, line: null, base: null },
      };
      entries.unshift(noted);
      return answer(200, noted);
    }
    if (method === 'GET' && called === 'changes') return answer(200, entries);
    if (method === 'GET' && called === 'session')
      return answer(200, { account: { id: 'anna', name: 'Anna Kerr' }, firstStart: false });
    return answer(404, { detail: `There is no ${method} ${path} here.` });
  };
  Object.assign(globalThis, { fetch: fetched, WebSocket: Silent });
  return { network: () => network, steps: () => steps };
}

/** What jsdom has not: sizes, so that lists with a window show their rows. */
export function withSizes(): void {
  Object.defineProperty(HTMLElement.prototype, 'clientHeight', { configurable: true, value: 600 });
  Object.defineProperty(HTMLElement.prototype, 'clientWidth', { configurable: true, value: 1200 });
  Element.prototype.scrollTo = () => undefined;
  Element.prototype.scrollIntoView = () => undefined;
}

/** Shows a part of the application once the project is there. */
export async function show(
  part: ReactNode,
  {
    network,
    at = 'places',
    role = 'owner',
  }: { network: Network; at?: string; role?: ProjectSummary['role'] },
): Promise<Held> {
  cleanup();
  sessionStorage.clear();
  const server = held(network, role);
  const project: ProjectSummary = {
    ...{ id: newId(), name: 'Marrow Sound Ferries', role, revision: 1 },
    ...{ standing: 'active', until: null },
  };
  let where = { path: '', query: new URLSearchParams() };
  function Whereabouts(): null {
    const { pathname, search } = useLocation();
    where = { path: pathname.split('/').slice(3).join('/'), query: new URLSearchParams(search) };
    return null;
  }
  function Loaded(): ReactNode {
    return useProject().view.revision === 0 ? <p>loading</p> : part;
  }
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  render(
    <QueryClientProvider client={client}>
      <ThemeProvider>
        <MemoryRouter initialEntries={[`/p/${project.id}/${at}`]}>
          <Whereabouts />
          <WorkspaceProvider>
            <ProjectProvider project={project} accountId="anna" plan={null}>
              <Routes>
                <Route path="/p/:project/sheets/:sheet" element={<Loaded />} />
                <Route path="/p/:project/*" element={<Loaded />} />
              </Routes>
            </ProjectProvider>
          </WorkspaceProvider>
        </MemoryRouter>
      </ThemeProvider>
    </QueryClientProvider>,
  );
  await waitFor(() => expectGone('loading'));
  return { ...server, at: () => where };
}
const expectGone = (text: string): void => {
  if (screen.queryByText(text) !== null) throw new Error(`${text} is still there`);
};

/** A row by what it is called. */
export function rowNamed<K extends Kind>(network: Network, kind: K, name: string): Row<K> {
  for (const row of network.all(kind)) {
    const { name: own, label, number, prefix } = row as unknown as Record<string, unknown>;
    if ([own, label, number, prefix].includes(name)) return row;
  }
  throw new Error(`There is no ${kind} ${name}.`);
}

export const card = (title: string | RegExp): HTMLElement => {
  const section = screen.getByRole('heading', { name: title }).closest('section');
  if (section === null) throw new Error('a heading without its card');
  return section;
};
export const type = (field: HTMLElement, value: string): void =>
  void fireEvent.change(field, { target: { value } });
export const press = (button: HTMLElement): void => void fireEvent.click(button);
/** Presses the button of this name, in a part of the page or anywhere. */
export const pressNamed = (name: string | RegExp, part?: HTMLElement): void =>
  press((part === undefined ? screen : within(part)).getByRole('button', { name }));
