import { useEffect } from 'react';

/** The name of what is shown, in the browser's tab: forty of them stand side by side. Empty for the page's own. */
export function useTitle(name: string): void {
  useEffect(() => {
    if (name) document.title = `${name} · Netting`;
  }, [name]);
}
