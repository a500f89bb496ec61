import { VisuallyHidden } from '@mantine/core';
import { Fragment, useContext, type ReactNode } from 'react';
import { createPortal } from 'react-dom';
import { Link } from 'react-router-dom';
import { Strip } from './strip';

interface Step {
  label: string;
  to?: string;
  /** Told to the window's title and to those who listen; something else shows it. */
  isUnseen?: boolean;
}

/** Tells the strip and the window's title where one is, and puts the screen's own controls beside it. */
export function Place({ steps, children }: { steps: Step[]; children?: ReactNode }) {
  const strip = useContext(Strip);
  return (
    strip &&
    createPortal(
      <>
        <title>{[...steps.map(({ label }) => label).reverse(), 'Dibujo'].join(' · ')}</title>
        <nav aria-label="Place">
          {steps.map((step, i) => (
            <Fragment key={step.label}>
              {i > 0 && !step.isUnseen && ' / '}
              {step.isUnseen ? (
                <VisuallyHidden component="h1">{step.label}</VisuallyHidden>
              ) : step.to ? (
                <Link to={step.to}>{step.label}</Link>
              ) : i < steps.length - 1 ? (
                step.label
              ) : (
                <h1>{step.label}</h1>
              )}
            </Fragment>
          ))}
        </nav>
        {children}
      </>,
      strip,
    )
  );
}
