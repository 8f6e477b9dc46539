import type { Quotation } from '@visograph/core/model';
import { differencesBetween } from '@visograph/core/purchase';
import { useMemo, type ReactNode } from 'react';
import { styled } from 'styled-components';

const Frame = styled.section`
  flex: none;
  max-height: 45%;
  overflow: auto;
  padding: 6px 12px;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  table {
    border-collapse: collapse;
    font-size: 12.5px;
  }
  th,
  td {
    padding: 2px 18px 2px 0;
    text-align: left;
    vertical-align: top;
    overflow-wrap: anywhere;
  }
  th {
    font-weight: 400;
    color: ${({ theme }) => theme.inkSoft};
  }
`;

/** What one revision says otherwise than the one before. */
export function Differences({ before, after }: { before: Quotation; after: Quotation }): ReactNode {
  const told = useMemo(() => differencesBetween(before, after), [before, after]);
  return (
    <Frame aria-label="Differences">
      {told.length === 0 ? (
        <p>{`It says the same as revision ${before.revision}.`}</p>
      ) : (
        <table>
          <thead>
            <tr>
              <th scope="col">What</th>
              <th scope="col">{`Revision ${before.revision}`}</th>
              <th scope="col">{`Revision ${after.revision}`}</th>
            </tr>
          </thead>
          <tbody>
            {told.map(({ what, before: was, after: is }) => (
              <tr key={what}>
                <td>{what}</td>
                <td>{was ?? 'not there'}</td>
                <td>{is ?? 'taken out'}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </Frame>
  );
}
