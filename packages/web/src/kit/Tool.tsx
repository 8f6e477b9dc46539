import type { LucideIcon } from 'lucide-react';
import type { ReactNode, Ref } from 'react';
import { Button as AriaButton, type ButtonProps } from 'react-aria-components';
import { styled } from 'styled-components';
import { Button, Keycap } from './controls.tsx';

const Frame = styled(Button)`
  display: inline-flex;
  gap: 6px;
  align-items: center;
  svg {
    flex: none;
  }
  kbd {
    margin-left: 0;
  }
  /* A line that is not wide has words alone; in a narrow one the picture stands for the word. */
  @container tools (max-width: 980px) {
    svg {
      display: none;
    }
  }
  @container tools (max-width: 700px) {
    padding: 0 8px;
    svg {
      display: block;
    }
    > span,
    > kbd {
      display: none;
    }
  }
`;

interface Props extends Omit<ButtonProps, 'children' | 'className' | 'style'> {
  icon: LucideIcon;
  /** What it does; also what it is called where only its picture is shown. */
  word: string;
  /** The key that does the same. */
  keycap?: string;
  tone?: 'primary';
  ref?: Ref<HTMLButtonElement>;
}

/** A tool of a line: its picture and its word; in a line too narrow for words, the picture alone. */
export function Tool({ icon: Icon, word, keycap, tone, ...button }: Props): ReactNode {
  return (
    <Frame
      as={AriaButton}
      {...button}
      $tone={tone}
      aria-label={keycap === undefined ? word : `${word} ${keycap}`}
    >
      <Icon size={14} strokeWidth={1.8} aria-hidden="true" />
      <span>{word}</span>
      {keycap !== undefined && <Keycap>{keycap}</Keycap>}
    </Frame>
  );
}
