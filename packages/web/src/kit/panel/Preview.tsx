import { styled } from 'styled-components';

/** A list of what would be made, before it is: scrolls by itself, numbers and addresses in mono. */
export const Preview = styled.div`
  max-height: 300px;
  overflow: auto;
  border: 1px solid ${({ theme }) => theme.rule};
  border-radius: 3px;
  table {
    border-collapse: collapse;
    width: 100%;
    font-size: 12.5px;
  }
  th {
    position: sticky;
    top: 0;
    background: ${({ theme }) => theme.band};
    color: ${({ theme }) => theme.inkSoft};
  }
  td,
  th {
    text-align: left;
    font-weight: 400;
    padding: 3px 9px;
    border-bottom: 1px solid ${({ theme }) => theme.rule};
    vertical-align: top;
  }
  td.mono {
    font-family: 'Atkinson Hyperlegible Mono', monospace;
    white-space: nowrap;
  }
  td.wrong {
    color: ${({ theme }) => theme.warn};
  }
`;

/** The inside of a panel: its fields in a row, then what they come to. */
export const PanelBody = styled.div<{ $wide?: boolean }>`
  width: ${({ $wide }) => ($wide === true ? 980 : 640)}px;
  max-width: 84vw;
  margin: 10px 0;
  display: flex;
  flex-direction: column;
  gap: 10px;
  > .fields {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 12px;
    align-items: flex-end;
  }
`;
