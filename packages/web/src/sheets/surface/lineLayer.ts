import { styled } from 'styled-components';

/** What lines are drawn on, in sheet units; only their strokes take the pointer. */
export const LineLayer = styled.svg.attrs({ className: 'sheet-links' })`
  position: absolute;
  top: 0;
  left: 0;
  overflow: visible;
  pointer-events: none;
  z-index: 1;
  .hit {
    pointer-events: stroke;
    cursor: default;
    outline: none;
  }
  .hit:focus-visible {
    stroke: ${({ theme }) => theme.accentWash};
  }
`;
