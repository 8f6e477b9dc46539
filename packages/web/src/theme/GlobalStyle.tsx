import { fonts } from '@visograph/drawing';
import { createGlobalStyle } from 'styled-components';
import { fontFaces } from './fontFaces.ts';

export const GlobalStyle = createGlobalStyle`
  ${fontFaces}
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
