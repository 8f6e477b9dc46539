import { styled } from 'styled-components';

/** A list at the left and what is open in it beside. */
export const Halves = styled.div`
  flex: 1;
  min-height: 0;
  display: flex;
`;
export const Main = styled.div`
  flex: 1;
  min-width: 0;
  min-height: 0;
  display: flex;
  flex-direction: column;
`;
/** What is open: what it is, and what can be done with it. */
export const Bar = styled.div`
  flex: none;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 6px;
  padding: 5px 12px;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  > p {
    flex: 1 1 200px;
    min-width: 0;
    color: ${({ theme }) => theme.inkSoft};
    font-size: 12px;
    overflow-wrap: anywhere;
  }
  button {
    height: 24px;
    padding: 0 9px;
  }
`;
/** What is beside the lines: facts to set, sums, a chart. */
export const Aside = styled.aside`
  flex: none;
  width: 300px;
  min-height: 0;
  overflow: auto;
  padding: 10px 12px 20px;
  border-left: 1px solid ${({ theme }) => theme.rule};
  display: flex;
  flex-direction: column;
  gap: 10px;
  h3 {
    font-size: 12.5px;
    margin-top: 4px;
  }
  @media (max-width: 1000px) {
    width: 260px;
  }
`;
export const Pair = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: flex-end;
`;
