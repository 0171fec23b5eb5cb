import type { ReactNode } from "react";
import { Dialog as AriaDialog, DialogTrigger, Heading, Modal, ModalOverlay } from "react-aria-components";
import styled from "styled-components";

const Overlay = styled(ModalOverlay)`
  position: fixed; inset: 0; z-index: 50; background: #0007; display: grid; place-items: center; padding: 12px;
`;
const Sheet = styled(Modal)`
  background: var(--panel); border: 1px solid var(--ink); border-radius: 4px; box-shadow: 0 10px 40px #0006;
  width: min(560px, 100%); max-height: calc(100vh - 24px); overflow: auto; padding: 20px;
`;
const Body = styled(AriaDialog)`
  outline: none; display: grid; gap: 14px;
`;
const Title = styled(Heading)`
  margin: 0;
`;

interface Props {
  title: string;
  isOpen?: boolean;
  onOpenChange?: (open: boolean) => void;
  children: ReactNode | ((close: () => void) => ReactNode);
}

export function Dialog({ title, isOpen, onOpenChange, children }: Props) {
  return (
    <Overlay isDismissable {...(isOpen !== undefined && { isOpen })} {...(onOpenChange && { onOpenChange })}>
      <Sheet>
        <Body>
          {({ close }) => (
            <>
              <Title slot="title">{title}</Title>
              {typeof children === "function" ? children(close) : children}
            </>
          )}
        </Body>
      </Sheet>
    </Overlay>
  );
}

export const Actions = styled.div`
  display: flex; flex-wrap: wrap; gap: 8px; justify-content: flex-end;
`;

export { DialogTrigger };
