import mono400 from '@expo-google-fonts/atkinson-hyperlegible-mono/400Regular/AtkinsonHyperlegibleMono_400Regular.ttf?url';
import mono600 from '@expo-google-fonts/atkinson-hyperlegible-mono/600SemiBold/AtkinsonHyperlegibleMono_600SemiBold.ttf?url';
import text400 from '@expo-google-fonts/atkinson-hyperlegible-next/400Regular/AtkinsonHyperlegibleNext_400Regular.ttf?url';
import text600 from '@expo-google-fonts/atkinson-hyperlegible-next/600SemiBold/AtkinsonHyperlegibleNext_600SemiBold.ttf?url';
import { fonts } from '@visograph/drawing';
import { createGlobalStyle } from 'styled-components';

const face = (family: string, weight: number, url: string): string =>
  `@font-face{font-family:'${family}';font-weight:${weight};font-display:block;src:url(${url}) format('truetype')}`;

const faces = [
  face('Atkinson Hyperlegible Next', 400, text400),
  face('Atkinson Hyperlegible Next', 600, text600),
  face('Atkinson Hyperlegible Mono', 400, mono400),
  face('Atkinson Hyperlegible Mono', 600, mono600),
].join('');

export const GlobalStyle = createGlobalStyle`
  ${faces}
  *, *::before, *::after { box-sizing: border-box; }
  html, body, #root { height: 100%; margin: 0; }
  body {
    font: 400 13px/18px ${fonts.text};
    color: ${({ theme }) => theme.ink};
    background: ${({ theme }) => theme.ground};
    -webkit-font-smoothing: antialiased;
    overflow: hidden;
  }
  h1, h2, h3, p, dl, dd, ul, ol { margin: 0; padding: 0; }
  ul, ol { list-style: none; }
  h1, h2, h3 { font-size: 13px; line-height: 18px; font-weight: 600; }
  a { color: inherit; }
  :focus-visible { outline: 2px solid ${({ theme }) => theme.accent}; outline-offset: 1px; border-radius: 3px; }
  ::selection { background: ${({ theme }) => theme.accentWash}; }
  @media (prefers-reduced-motion: reduce) { *, *::before, *::after { transition: none !important; animation: none !important; } }
`;
