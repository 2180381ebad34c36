/** Units of one stock number of a seller. */
export type Units = { number: string; product: string; quantity: number };

export type Warehouse = { id: string; name: string; address: string[]; closed: boolean };

/** A part of a plan that goes to one warehouse; placing costs cents in all. */
export type Placement = { warehouse: string; units: Units[]; placing: number };

export type Plan = {
  id: string;
  seller: string;
  /** Who sticks the labels on: the seller, or the warehouse for a fee. */
  labels: 'self' | 'warehouse';
  /** How the units are split; asking again gives another split. */
  spread: 'wide' | 'few' | 'one';
  placements: Placement[];
  labelling: number;
  refused: (Units & { reason: string })[];
  createdAt: number;
  expiresAt: number;
  /** The shipments that were made of it, once it was taken. */
  shipments: string[];
};

export type Box = {
  number: number;
  grams: number;
  millimetres: [number, number, number];
  contents: { number: string; quantity: number }[];
  /** What stands in its barcode. */
  code: string;
  tracking: string | null;
};

export type Received = { number: string; expected: number; received: number };

export type Shipment = {
  id: string;
  plan: string;
  seller: string;
  warehouse: string;
  labels: Plan['labels'];
  units: Units[];
  boxes: Box[];
  state: 'open' | 'shipped' | 'received';
  carrier: string | null;
  shippedAt: number | null;
  receivedAt: number | null;
  received: Received[];
  claims: {
    number: string;
    quantity: number;
    note: string;
    answer: 'open' | 'found' | 'paid' | 'refused';
    cents: number;
  }[];
};
