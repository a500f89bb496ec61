import { Modal, type ModalRootProps } from '@mantine/core';
import classes from './Dialog.module.css';

interface Props extends Pick<ModalRootProps, 'size' | 'children'> {
  title: string;
  isOpen: boolean;
  onClose: () => void;
}

/** A dialog over the page, with its title and a way to close it. Its head is no banner: there is one on the page already. */
export function Dialog({ title, isOpen, onClose, size, children }: Props) {
  return (
    <Modal.Root opened={isOpen} onClose={onClose} size={size}>
      <Modal.Overlay />
      <Modal.Content radius={0}>
        <div className={classes.head}>
          <Modal.Title>{title}</Modal.Title>
          <Modal.CloseButton aria-label="Close" />
        </div>
        <Modal.Body>{children}</Modal.Body>
      </Modal.Content>
    </Modal.Root>
  );
}
