import { styled } from 'styled-components';

/** Fields of the editor beside each other. */
export const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: flex-start;
  margin-bottom: 6px;
  label {
    white-space: nowrap;
  }
  /* What has no label stands beside the fields. */
  > button,
  > img,
  > p {
    margin-top: 18px;
  }
`;
