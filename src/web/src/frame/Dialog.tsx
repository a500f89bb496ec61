import { Modal, type ModalRootProps } from '@mantine/core';
import type { ReactNode } from 'react';
import classes from './Dialog.module.css';

interface Props extends Pick<ModalRootProps, 'size' | 'children'> {
  title: string;
  /** What it ends with: stays in view however long the rest is. */
  foot?: ReactNode;
  /** Whether a press beside it leaves it open: what was written in it would be gone. */
  isHeld?: boolean;
  isOpen: boolean;
  onClose: () => void;
}

/** A dialog over the page, with its title and a way to close it. Its head is no banner: there is one on the page already. */
export function Dialog({ title, foot, isHeld = false, isOpen, onClose, size, children }: Props) {
  return (
    <Modal.Root opened={isOpen} onClose={onClose} closeOnClickOutside={!isHeld} size={size}>
      <Modal.Overlay />
      <Modal.Content radius={0}>
        <div className={classes.head}>
          <Modal.Title>{title}</Modal.Title>
          <Modal.CloseButton aria-label="Close" />
        </div>
        <Modal.Body>{children}</Modal.Body>
        {foot && <div className={classes.foot}>{foot}</div>}
      </Modal.Content>
    </Modal.Root>
  );
}
