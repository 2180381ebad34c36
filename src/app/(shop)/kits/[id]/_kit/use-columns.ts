'use client';

import { useEffect, useMemo, useState } from 'react';
import { type ColumnId, lotColumns, usualColumns } from './columns';

const key = 'netting.lot-columns';

/** Which columns are shown; the browser remembers it. */
export function useColumns() {
  const [chosen, setChosen] = useState<readonly ColumnId[]>(usualColumns);
  useEffect(() => {
    const kept = localStorage.getItem(key)?.split(',') ?? [];
    const known = lotColumns.filter((one) => kept.includes(one.id)).map((one) => one.id);
    if (known.length) setChosen(known);
  }, []);
  const columns = useMemo(() => lotColumns.filter((one) => one.isAlways || chosen.includes(one.id)), [chosen]);
  const toggle = (id: ColumnId) => {
    const next = chosen.includes(id) ? chosen.filter((one) => one !== id) : [...chosen, id];
    setChosen(next);
    localStorage.setItem(key, next.join());
  };
  return { columns, toggle };
}
