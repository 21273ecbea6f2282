// What a page is called: in the tab, in the history, and to who hears it.
import { useEffect } from 'react';

export function useTitle(title: string): void {
  useEffect(() => {
    document.title = `${title} · Bold Stance`;
    return () => {
      document.title = 'Bold Stance';
    };
  }, [title]);
}
