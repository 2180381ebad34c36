import { useCallback, useEffect, useState } from 'react';

const key = 'netting.open-items';
const most = 20;

function read(): number[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(key) ?? '[]');
    return Array.isArray(kept) ? kept.filter((one): one is number => Number.isInteger(one)) : [];
  } catch {
    return [];
  }
}

/** The items of this sitting, in the order in which they were opened; kept by this browser. */
export function useOpenItems(itemId: number) {
  const [ids, setIds] = useState<number[]>([]);
  useEffect(() => {
    const kept = read();
    // A new one comes among them once it is stored.
    const next = itemId === 0 || kept.includes(itemId) ? kept : [...kept, itemId].slice(-most);
    localStorage.setItem(key, JSON.stringify(next));
    setIds(next);
  }, [itemId]);
  const drop = useCallback((id: number) => {
    const next = read().filter((one) => one !== id);
    localStorage.setItem(key, JSON.stringify(next));
    setIds(next);
  }, []);
  const clear = useCallback(() => {
    const next = itemId === 0 ? [] : [itemId];
    localStorage.setItem(key, JSON.stringify(next));
    setIds(next);
  }, [itemId]);
  return { ids, drop, clear };
}
