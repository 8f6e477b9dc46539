import { styled } from 'styled-components';

/** What is between the head of a sheet and its rows. */
export const Stage = styled.div`
  flex: 1;
  min-height: 0;
  display: flex;
`;
export const Board = styled.div`
  flex: 1;
  min-width: 0;
  position: relative;
`;
/** Told over the drawing while it is made. */
export const Waiting = styled.p`
  position: absolute;
  left: 50%;
  top: 10px;
  transform: translateX(-50%);
  z-index: 6;
  padding: 2px 10px;
  border-radius: 3px;
  font-size: 12px;
  background: ${({ theme }) => theme.surface};
  border: 1px solid ${({ theme }) => theme.rule};
  color: ${({ theme }) => theme.inkSoft};
  /* Only what takes a while is told. */
  animation: appear 0s 250ms both;
  @keyframes appear {
    from {
      visibility: hidden;
    }
    to {
      visibility: visible;
    }
  }
`;
