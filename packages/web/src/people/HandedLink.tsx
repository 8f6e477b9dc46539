import { useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { Button, Field } from '../kit/controls.tsx';
import { Hint } from '../kit/panel/panels.tsx';

const Box = styled.div`
  margin: 10px 0 14px;
  padding: 10px 12px;
  border-left: 4px solid ${({ theme }) => theme.accent};
  background: ${({ theme }) => theme.accentWash};
  display: flex;
  flex-direction: column;
  gap: 6px;
  > div {
    display: grid;
    grid-template-columns: 1fr auto;
    align-items: end;
    gap: 8px;
  }
`;

/** A link that works once, to be handed on: it is shown this once. */
export function HandedLink({ label, link, text }: { label: string; link: string; text: string }): ReactNode {
  const [copied, setCopied] = useState<boolean | null>(null);
  const copy = async (): Promise<void> => {
    try {
      await navigator.clipboard.writeText(link);
      setCopied(true);
    } catch {
      // Without TLS a page may not write there.
      setCopied(false);
    }
  };
  return (
    <Box role="status">
      <div>
        <Field label={label} value={link} onChange={() => undefined} readOnly mono />
        <Button autoFocus onPress={() => void copy()}>
          {copied === true ? 'Copied' : 'Copy link'}
        </Button>
      </div>
      <Hint>
        {copied === false ? 'The browser does not let it be copied: choose the link and copy it. ' : ''}
        {text}
      </Hint>
    </Box>
  );
}
