'use client';

import { useQuery } from '@tanstack/react-query';
import { Command } from 'cmdk';
import { useRouter } from 'next/navigation';
import { useDeferredValue, useState } from 'react';
import { sayCondition } from '@/core/filter/say';
import type { ItemPatch } from '@/core/item/item';
import { homeCurrency } from '@/core/measure/money';
import type { LookedUp } from '@/services/accounts/mapping/ask-catalogues';
import type { TemplateView } from '@/services/listings/templates/find-templates';
import { Dialog } from '../controls/dialog';
import { api, photoUrl } from '../data/api';
import { newSheet } from '../data/new-sheet';
import { useNotice } from './providers';

/** What a template's conditions say an item is: the fields that a new one begins with. */
function fieldsOf(template: TemplateView): ItemPatch {
  const fields: ItemPatch = { attributes: {} };
  for (const { field, op, value } of template.conditions) {
    if ((op !== 'is' && op !== 'begins') || typeof value !== 'string') continue;
    if (field.startsWith('attributes.')) fields.attributes = { ...fields.attributes, [field.slice(11)]: value };
    else if (field === 'category') fields.category = value.replace(/\/$/, '');
    else if (field === 'brand') fields.brand = value;
    else if (field === 'model') fields.model = value;
    else if (field === 'supplier') fields.supplier = value;
  }
  return fields;
}

const fromCatalogue = ({ name, brand, model, barcode, category }: LookedUp): ItemPatch => ({
  title: name.slice(0, 300),
  brand: brand.slice(0, 80),
  model: model.slice(0, 120),
  barcode: barcode.slice(0, 20),
  ...(category ? { category } : {}),
});

/**
 * A new item from the last one, from any other, from a template, from a catalogue by barcode, ISBN or name, or from
 * nothing: what is typed looks in all of them.
 */
export function NewFrom({ close }: { close: () => void }) {
  const router = useRouter();
  const notice = useNotice();
  const [text, setText] = useState('');
  const [withPhotos, setWithPhotos] = useState(false);
  const wanted = useDeferredValue(text.trim());
  const items = useQuery({
    queryKey: ['new-from', wanted],
    queryFn: () => api('GET /items', { query: { limit: '6', sort: 'created', dir: 'desc', q: wanted || undefined } }),
    placeholderData: (before) => before,
  });
  const templates = useQuery({
    queryKey: ['templates'],
    queryFn: () => api('GET /templates'),
    staleTime: 60_000,
  });
  const catalogue = useQuery({
    queryKey: ['catalogues', wanted],
    queryFn: () => api('GET /catalogues', { query: { q: wanted } }),
    enabled: wanted.length >= 3,
    staleTime: 60_000,
  });
  const make = async (body: Record<string, unknown>, copy: boolean) => {
    try {
      const { id } = await api('POST /items', { body });
      close();
      router.push(`/items/${id}${copy ? '?copy' : ''}`);
    } catch (error) {
      notice(error instanceof Error ? error.message : 'Not recorded');
    }
  };
  const group = 'px-2 pt-2 pb-0.5 text-[12px] [&_[cmdk-group-heading]]:quiet';
  const row = 'flex cursor-pointer items-center gap-2 rounded px-2 py-1 data-[selected=true]:bg-base-200 text-[13px]';
  const fits = (name: string) => name.toLowerCase().includes(wanted.toLowerCase());
  const beginnings = (templates.data?.templates ?? [])
    .filter((one) => one.conditions.some((condition) => condition.op === 'is' || condition.op === 'begins'))
    .filter((one) => !wanted || fits(one.name));
  return (
    <Dialog title="New item from …" close={close}>
      <Command label="New item from" shouldFilter={false} loop>
        <Command.Input
          data-first
          value={text}
          onValueChange={setText}
          placeholder="Title or stock number of an item, barcode, ISBN, name in a catalogue"
          className="input input-sm w-full"
        />
        <Command.List className="mt-2 max-h-[50vh] overflow-auto">
          <Command.Item
            value="nothing"
            className={row}
            onSelect={() => {
              close();
              router.push(newSheet());
            }}
          >
            Nothing: an empty sheet
          </Command.Item>
          <Command.Group heading={wanted ? 'Items' : 'The last items'} className={group}>
            {items.data?.items.map((item) => (
              <Command.Item
                key={item.id}
                value={`item-${item.id}`}
                className={row}
                onSelect={() => void make({ copyOf: item.id, withPhotos }, true)}
              >
                {item.photo ? (
                  <img src={photoUrl(item.photo, 'thumb')} alt="" className="h-7 w-7 rounded object-cover" />
                ) : (
                  <span className="h-7 w-7" />
                )}
                <span className="min-w-0 flex-1 truncate">{item.title || 'Without a title'}</span>
                <span className="mono quiet">{item.sku}</span>
              </Command.Item>
            ))}
          </Command.Group>
          <Command.Group heading="Templates" className={group} hidden={beginnings.length === 0}>
            {beginnings.slice(0, 5).map((one) => (
              <Command.Item
                key={one.id}
                value={`template-${one.id}`}
                className={row}
                onSelect={() => void make({ fields: fieldsOf(one) }, false)}
              >
                <span className="flex-1">{one.name}</span>
                <span className="quiet">
                  {one.conditions
                    .map((condition) => sayCondition(condition, [], { currency: homeCurrency }))
                    .join(', ')}
                </span>
              </Command.Item>
            ))}
          </Command.Group>
          {wanted.length >= 3 ? (
            <Command.Group heading="Catalogues" className={group}>
              {catalogue.isFetching ? <p className="quiet px-2 py-1">Asking the catalogues …</p> : null}
              {catalogue.data?.found.map((entry) => (
                <Command.Item
                  key={`${entry.market}-${entry.id}`}
                  value={`entry-${entry.market}-${entry.id}`}
                  className={row}
                  onSelect={() => void make({ fields: fromCatalogue(entry) }, false)}
                >
                  <span className="min-w-0 flex-1 truncate">{entry.name}</span>
                  <span className="mono quiet">{entry.barcode}</span>
                  <span className="quiet">{entry.from}</span>
                </Command.Item>
              ))}
              {catalogue.data?.found.length === 0 && !catalogue.isFetching ? (
                <p className="quiet px-2 py-1">No catalogue knows it; record it by hand.</p>
              ) : null}
              {catalogue.data?.silent.map((one) => (
                <p key={one.name} className="px-2 py-1 text-warning">
                  {one.name}: {one.why}
                </p>
              ))}
            </Command.Group>
          ) : null}
        </Command.List>
      </Command>
      <label className="mt-3 flex items-center gap-2">
        <input
          type="checkbox"
          className="checkbox checkbox-xs"
          checked={withPhotos}
          onChange={(event) => setWithPhotos(event.target.checked)}
        />
        Take the photos of the item along, too
      </label>
    </Dialog>
  );
}
