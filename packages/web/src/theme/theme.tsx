import { night, paper, type Tokens } from '@visograph/drawing';
import { createContext, useContext, useEffect, useMemo, useState, type ReactNode } from 'react';
import { ThemeProvider as StyledTheme } from 'styled-components';

export type ThemeName = 'paper' | 'night';

declare module 'styled-components' {
  // eslint-disable-next-line @typescript-eslint/no-empty-object-type
  export interface DefaultTheme extends Tokens {}
}

interface ThemeChoice {
  name: ThemeName;
  tokens: Tokens;
  choose: (name: ThemeName) => void;
}
const Choice = createContext<ThemeChoice>({ name: 'paper', tokens: paper, choose: () => undefined });
export const useTheme = (): ThemeChoice => useContext(Choice);

const storageKey = 'visograph.theme';
const stored = (): ThemeName => (localStorage.getItem(storageKey) === 'night' ? 'night' : 'paper');

const themes = { paper, night };
const nothing = (): void => undefined;

/** One of the themes whatever is chosen, for what is shown in both. */
export function FixedTheme({ name, children }: { name: ThemeName; children: ReactNode }): ReactNode {
  const value = useMemo(() => ({ name, tokens: themes[name], choose: nothing }), [name]);
  return (
    <Choice value={value}>
      <StyledTheme theme={themes[name]}>{children}</StyledTheme>
    </Choice>
  );
}

/** The theme of this browser: kept from one visit to the next. */
export function ThemeProvider({ children }: { children: ReactNode }): ReactNode {
  const [name, setName] = useState<ThemeName>(stored);
  useEffect(() => {
    localStorage.setItem(storageKey, name);
    document.documentElement.style.colorScheme = name === 'night' ? 'dark' : 'light';
  }, [name]);
  const tokens = themes[name];
  const value = useMemo(() => ({ name, tokens, choose: setName }), [name, tokens]);
  return (
    <Choice value={value}>
      <StyledTheme theme={tokens}>{children}</StyledTheme>
    </Choice>
  );
}
