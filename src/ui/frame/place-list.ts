import type { Role } from '@/core/access';

/** A page, or a part of one. */
export type PageOf = {
  label: string;
  hint: string;
  href: string;
  /** Whom it is for; everybody when left out. */
  least?: Role;
};

/** Every page that is not of one thing, in the order in which the launcher shows them. */
export const pages: PageOf[] = [
  { label: 'Inventory', hint: 'All items and their listings', href: '/' },
  { label: 'Batches', hint: 'Piles that came in together, scanned piece by piece', href: '/batches' },
  { label: 'Consignments', hint: 'Stock sent in to a marketplace’s warehouse', href: '/consignments' },
  { label: 'Artwork', hint: 'Pictures for products, and the grounds they suit', href: '/artwork', least: 'seller' },
  { label: 'Artwork on products', hint: 'All of it, looked over', href: '/artwork/gallery', least: 'seller' },
  { label: 'What artwork earns', hint: 'By picture, product, account', href: '/artwork/earnings', least: 'seller' },
  { label: 'Sets', hint: 'Bought whole, taken apart, sold in parts', href: '/kits', least: 'seller' },
  { label: 'Labels', hint: 'For items, prices, shelves, and commands for scanning', href: '/labels' },
  { label: 'Outbox', hint: 'What is planned, under way, done and failed', href: '/outbox', least: 'seller' },
  { label: 'Changed', hint: 'What was changed here and not sent', href: '/changed', least: 'seller' },
  { label: 'Differences', hint: 'What marketplaces show otherwise than sent', href: '/differences', least: 'seller' },
  { label: 'Attention', hint: 'What needs a person, by cause', href: '/attention', least: 'seller' },
  { label: 'Renewal', hint: 'End listings and make them anew', href: '/renewals', least: 'seller' },
  { label: 'Links', hint: 'Stock numbers and the marketplaces’ numbers', href: '/links', least: 'seller' },
  { label: 'Photos', hint: 'What is missing, folders of files, badges', href: '/photos' },
  { label: 'Bring in', hint: 'What is listed on your accounts already', href: '/bring-in', least: 'seller' },
  { label: 'Copy a shop', hint: 'From one marketplace to another', href: '/copies', least: 'seller' },
  { label: 'Files', hint: 'Write out to spreadsheets, read in', href: '/files', least: 'seller' },
  { label: 'Marketplaces', hint: 'Accounts, defaults, rules', href: '/marketplaces', least: 'seller' },
  { label: 'Templates', hint: 'Texts chosen by rule', href: '/templates', least: 'seller' },
  { label: 'Routines', hint: 'Kept changes, by hand or by plan', href: '/routines', least: 'seller' },
  { label: 'Postage', hint: 'Boxes, carriers, exchange rates', href: '/postage', least: 'seller' },
  { label: 'Settings', hint: 'Stock numbers, fields of your own', href: '/settings', least: 'seller' },
  { label: 'People', hint: 'Who works here, as what, invitations', href: '/people', least: 'owner' },
  { label: 'You', hint: 'Password, second step, where you are signed in', href: '/you' },
  { label: 'Insights', hint: 'What was sold, what it left, what lies here', href: '/insights', least: 'seller' },
  { label: 'Sales', hint: 'Orders from everywhere', href: '/sales', least: 'seller' },
];

/** Parts of pages, found by what is typed. */
export const partsOfPages: PageOf[] = [
  { label: 'Intake', hint: 'Items without title or price', href: '/?stage=intake' },
  { label: 'Drafts', hint: 'Items that lack something for a marketplace', href: '/?stage=drafts' },
  { label: 'Ready', hint: 'Items that can be published', href: '/?stage=ready' },
  { label: 'Live', hint: 'Items that are listed', href: '/?stage=live' },
  { label: 'What lies there', hint: 'Stock in warehouses, by both sides', href: '/consignments#lies-there' },
  { label: 'Stock numbers', hint: 'Their pattern, in the settings', href: '/settings#stock-numbers', least: 'seller' },
  {
    label: 'Condition notes',
    hint: 'Ready-made sentences, in the settings',
    href: '/settings#condition-notes',
    least: 'seller',
  },
  {
    label: 'Words in other languages',
    hint: 'Terms of your own, in the settings',
    href: '/settings#glossary',
    least: 'seller',
  },
  { label: 'Packing', hint: 'What it costs, in the settings', href: '/settings#packing', least: 'seller' },
  { label: 'Fields of your own', hint: 'In the settings', href: '/settings#own-fields', least: 'seller' },
  { label: 'Daily summary', hint: 'By feed and webhook, in the settings', href: '/settings#summary', least: 'owner' },
  { label: 'Boxes', hint: 'Of the shop, under Postage', href: '/postage#boxes', least: 'seller' },
  { label: 'Exchange rates', hint: 'With their day, under Postage', href: '/postage#rates', least: 'seller' },
  { label: 'API tokens', hint: 'For programs, under You', href: '/you#tokens' },
];
