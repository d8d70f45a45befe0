/** A button that asks for a file. */
import Button, { type ButtonProps } from '@mui/material/Button';
import { useRef } from 'react';

interface Props extends Pick<ButtonProps, 'variant' | 'size' | 'disabled'> {
  label: string; // what the file is
  accept: string;
  camera?: boolean; // a phone opens it at once
  onFile: (f: File) => void;
  children: string;
}

export function FileButton({ label, accept, camera, onFile, children, ...button }: Props) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button {...button} onClick={() => input.current?.click()}>
        {children}
      </Button>
      <input
        ref={input}
        type="file"
        hidden
        accept={accept}
        capture={camera ? 'environment' : undefined}
        aria-label={label}
        onChange={(e) => {
          const file = e.target.files?.[0];
          e.target.value = ''; // the same file may be chosen again
          if (file) onFile(file);
        }}
      />
    </>
  );
}
