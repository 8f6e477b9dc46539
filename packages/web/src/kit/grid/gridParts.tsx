import { styled } from 'styled-components';
import { mono } from '../../theme/mono.ts';

export const rowHeight = 28;

export const Frame = styled.div`
  flex: 1;
  min-height: 0;
  min-width: 0;
  overflow: auto;
  background: ${({ theme }) => theme.surface};
  outline: none;
`;
export const HeadRow = styled.div`
  display: flex;
  position: sticky;
  top: 0;
  z-index: 2;
  height: 26px;
  background: ${({ theme }) => theme.band};
  border-bottom: 1px solid ${({ theme }) => theme.rule};
`;
export const HeadCell = styled.div`
  display: flex;
  position: relative;
  min-width: 0;
  button {
    flex: 1;
    font: inherit;
    font-weight: 600;
    color: ${({ theme }) => theme.inkSoft};
    text-align: inherit;
    border: 0;
    background: none;
    padding: 0 7px;
    white-space: nowrap;
    &[data-worked] {
      font-style: italic;
      font-weight: 400;
    }
  }
`;
/** The edge of a column, by which it is made wider or narrower. */
export const Edge = styled.span`
  position: absolute;
  top: 0;
  right: -3px;
  z-index: 1;
  width: 7px;
  height: 100%;
  cursor: col-resize;
  touch-action: none;
  &:hover,
  &[data-held] {
    background: ${({ theme }) => theme.rule};
  }
`;
export const Row = styled.div`
  position: absolute;
  left: 0;
  width: 100%;
  display: flex;
  height: ${rowHeight}px;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  &[aria-selected='true'] {
    background: ${({ theme }) => theme.accentWash};
  }
  &[data-heading] {
    background: ${({ theme }) => theme.band};
    font-weight: 600;
    > div:first-child {
      overflow: visible;
      font-family: inherit;
      font-size: inherit;
      text-align: left !important;
    }
    > div:not(:first-child, :empty) {
      position: relative;
      background: ${({ theme }) => theme.band};
    }
  }
  &[data-heading='1'] > div:first-child {
    padding-left: 21px;
  }
  &[data-heading='2'] > div:first-child {
    padding-left: 35px;
  }
  &[data-heading='3'] > div:first-child {
    padding-left: 49px;
  }
`;
export const CellBox = styled.div<{ $text?: boolean; $wrong?: boolean; $block?: boolean }>`
  min-width: 0;
  padding: 0 7px;
  line-height: ${rowHeight - 1}px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  outline-offset: -2px;
  ${({ $text }) => ($text === true ? '' : mono)}
  ${({ $text }) => ($text === true ? '' : 'font-size: 12px;')}
  ${({ theme, $wrong }) => ($wrong === true ? `box-shadow: inset 0 0 0 2px ${theme.bad};` : '')}
  ${({ theme, $block }) => ($block === true ? `background: ${theme.accentWash};` : '')}
  &:focus {
    outline: 2px solid ${({ theme }) => theme.accent};
  }
  input {
    font: inherit;
    color: inherit;
    width: 100%;
    height: 24px;
    border: 0;
    padding: 0;
    outline: none;
    background: ${({ theme }) => theme.surface};
  }
`;
export const Why = styled.p`
  flex: none;
  overflow-wrap: anywhere;
  padding: 6px 12px;
  color: ${({ theme }) => theme.bad};
  border-top: 1px solid ${({ theme }) => theme.rule};
  background: ${({ theme }) => theme.surface};
`;
