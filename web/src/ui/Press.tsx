// What is pressed: a chip with a border, or a bare row of a list. Both are MUI's, with its focus and keyboard.
import { Button, ButtonBase, type ButtonBaseProps, type ButtonProps } from '@mui/material';
import type { ReactNode, Ref } from 'react';
import { Link } from 'react-router';

type Chip = Omit<ButtonProps, 'variant'> & { ref?: Ref<HTMLButtonElement>; download?: boolean };

/** A small button: an act beside others, or a toggle where `aria-pressed` is told. With `href` it is a link. */
export function ChipButton({ className = '', ...rest }: Chip) {
  return <Button variant="chip" className={`chip ${className}`} {...rest} />;
}

/** The same as a way to another page of ours. */
export function ChipLink(p: { to: string; testid?: string; children: ReactNode }) {
  return (
    <Button variant="chip" className="chip" component={Link} to={p.to} data-testid={p.testid}>
      {p.children}
    </Button>
  );
}

type Bare = ButtonBaseProps & { ref?: Ref<HTMLButtonElement>; title?: string };
// As a button lays out what is in it: our style sheets make rows and grids of it where they want to.
const natural = {
  display: 'inline-block',
  alignItems: 'normal',
  justifyContent: 'normal',
  font: 'inherit',
  color: 'inherit',
  verticalAlign: 'baseline',
};

/** A row or figure that can be pressed and looks like nothing but itself. */
export function Bare({ className = '', ...rest }: Bare) {
  return (
    <ButtonBase
      className={`bare ${className}`}
      {...rest}
      sx={{ ...natural, textAlign: 'left', ...rest.sx }}
    />
  );
}

/** A button that a drawing or a pad dresses by itself: a key, a step, a tick at a gate. */
export function Plain(p: Bare) {
  return <ButtonBase {...p} sx={{ ...natural, textAlign: 'center', ...p.sx }} />;
}
