import type { Session } from './session';

/** Units of one stock number that are to be sent in, by what the catalogue calls them. */
export type InboundUnits = { sku: string; productId: string; quantity: number };

/** The part of a plan that goes to one warehouse; amounts in minor units of the marketplace's currency. */
export type InboundPlacement = { warehouse: string; units: InboundUnits[]; placing: number };

/** Which units go to which warehouse, what that costs, and what they do not take. */
export type InboundPlan = {
  planId: string;
  state: 'open' | 'taken' | 'lapsed';
  placements: InboundPlacement[];
  /** What they ask for sticking the labels on, where they do. */
  labelling: number;
  refused: (InboundUnits & { reason: string })[];
  expiresAt: string;
};

export type InboundBox = {
  grams: number;
  millimetres: [number, number, number];
  contents: { sku: string; quantity: number }[];
};

export type InboundClaim = {
  sku: string;
  quantity: number;
  note: string;
  answer: 'open' | 'found' | 'paid' | 'refused';
  amount: number;
};

/** What is on its way to one warehouse, as they know it. */
export type InboundShipment = {
  shipmentId: string;
  warehouse: string;
  address: string[];
  isClosed: boolean;
  units: InboundUnits[];
  /** What stands in the barcode of each box that they were told of, in the order of the boxes. */
  boxCodes: string[];
  state: 'open' | 'shipped' | 'received';
  received: { sku: string; expected: number; received: number }[];
  claims: InboundClaim[];
};

export type InboundWarehouse = { id: string; name: string; address: string[]; isClosed: boolean };
export type InboundLimits = { grams: number; millimetres: number };

/** What lies in their warehouses, and what a month there costs. */
export type InboundStock = { sku: string; warehouse: string; quantity: number; monthly: number };

/** What was sold elsewhere and is sent from their warehouses. */
export type InboundDispatch = { dispatchId: string; amount: number; tracking: string };

/** How stock is sent to a marketplace's warehouses. */
export type Inbound = {
  warehouses(session: Session): Promise<{ warehouses: InboundWarehouse[]; limits: InboundLimits }>;
  /** @param given.again the plan that is to be split in another way */
  plan(
    session: Session,
    given: { units: (InboundUnits & { expiresOn: string | null })[]; labels: 'self' | 'warehouse'; again?: string },
    idempotencyKey: string,
  ): Promise<InboundPlan>;
  /** A shipment for each warehouse; taken twice the same are answered. */
  take(session: Session, planId: string): Promise<InboundShipment[]>;
  read(session: Session, shipmentId: string): Promise<InboundShipment>;
  tellBoxes(session: Session, shipmentId: string, boxes: readonly InboundBox[]): Promise<InboundShipment>;
  /** @param given.tracking a number for each box, in their order */
  ship(session: Session, shipmentId: string, given: { carrier: string; tracking: string[] }): Promise<InboundShipment>;
  claim(
    session: Session,
    shipmentId: string,
    given: { sku: string; quantity: number; note: string },
  ): Promise<InboundShipment>;
  stock(session: Session): Promise<InboundStock[]>;
  /** Has something sent that was sold elsewhere. The same order told again is sent once. */
  dispatch(
    session: Session,
    given: { order: string; sku: string; quantity: number; town: string },
  ): Promise<InboundDispatch>;
  /** The order was called off: what was to be sent lies there again. */
  takeBack(session: Session, dispatchId: string): Promise<void>;
};
