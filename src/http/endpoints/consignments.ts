import { Readable } from 'node:stream';
import { z } from 'zod';
import { askPlan, askPlanSchema } from '../../services/consignments/ask-plan';
import { callOff, callShipmentOff } from '../../services/consignments/call-off';
import { chooseUnits, chooseUnitsSchema } from '../../services/consignments/choose-units';
import { claimMissing, claimSchema, giveUpMissing, giveUpSchema } from '../../services/consignments/claim-missing';
import { consignmentViewSchema, findConsignment, planViewSchema } from '../../services/consignments/find-consignment';
import {
  consignmentRowSchema,
  findConsignments,
  findConsignmentsSchema,
  inboundAccounts,
} from '../../services/consignments/find-consignments';
import { followShipment } from '../../services/consignments/follow-shipment';
import { shipmentStateSchema } from '../../services/consignments/load-consignment';
import { packedSchema, packScan, packScanSchema } from '../../services/consignments/pack-scan';
import {
  changeConsignment,
  changeConsignmentSchema,
  createConsignment,
  newConsignmentSchema,
} from '../../services/consignments/save-consignment';
import { contentsFileSchema, readContentsFile, setBoxes, setBoxesSchema } from '../../services/consignments/set-boxes';
import { carrierQuoteSchema, shipmentQuotes, shipSchema, shipShipment } from '../../services/consignments/ship';
import { papersSchema, shipmentPapers } from '../../services/consignments/shipment-papers';
import { stockThere, stockThereSchema } from '../../services/consignments/stock-there';
import { takePlan, takePlanSchema } from '../../services/consignments/take-plan';
import { tellBoxes } from '../../services/consignments/tell-boxes';
import { done, endpoint, streamed } from '../endpoint';
import { fileResponse } from '../file-response';

const tag = 'Consignments';
const made = z.object({ id: z.number() });
const versioned = z.object({ version: z.number() });
const stateAnswer = z.object({ state: shipmentStateSchema });
const nothing = z.object({}).strict();

/** Stock on its way into marketplaces' warehouses: chosen, planned, packed, shipped, followed. */
export const consignmentsEndpoints = [
  endpoint({
    method: 'GET',
    path: '/consignments',
    tag,
    role: 'packer',
    summary: 'Consignments, the newest first',
    query: findConsignmentsSchema,
    answer: z.object({ consignments: z.array(consignmentRowSchema), next: z.number().nullable() }),
    run: ({ query }) => findConsignments(query),
  }),
  endpoint({
    method: 'GET',
    path: '/consignments/accounts',
    tag,
    role: 'packer',
    summary: 'Accounts whose marketplaces have warehouses',
    answer: z.object({ accounts: z.array(z.object({ id: z.number(), name: z.string(), market: z.string() })) }),
    run: async () => ({ accounts: await inboundAccounts() }),
  }),
  endpoint({
    method: 'GET',
    path: '/consignments/stock',
    tag,
    role: 'packer',
    summary: 'What lies in the warehouses, by the ledger and as they tell it, with what a month there costs',
    answer: z.object({ accounts: stockThereSchema }),
    run: async () => ({ accounts: await stockThere() }),
  }),
  endpoint({
    method: 'POST',
    path: '/consignments',
    tag,
    role: 'seller',
    summary: 'Begin a consignment',
    body: newConsignmentSchema,
    answer: made,
    run: ({ actor, body }) => createConsignment(actor, body),
  }),
  endpoint({
    method: 'GET',
    path: '/consignments/{id}',
    tag,
    role: 'packer',
    summary: 'A consignment with its plans, shipments and boxes',
    answer: consignmentViewSchema,
    run: ({ params }) => findConsignment(params.id),
  }),
  endpoint({
    method: 'PATCH',
    path: '/consignments/{id}',
    tag,
    role: 'seller',
    summary: 'Change its name, who labels, how it is packed',
    body: changeConsignmentSchema,
    answer: versioned,
    run: ({ params, body }) => changeConsignment(params.id, body),
  }),
  endpoint({
    method: 'POST',
    path: '/consignments/{id}/units',
    tag,
    role: 'packer',
    summary: 'Choose what is sent in, and how many',
    body: chooseUnitsSchema,
    answer: z.object({ left: z.array(z.string()) }),
    run: ({ params, body }) => chooseUnits(params.id, body),
  }),
  endpoint({
    method: 'POST',
    path: '/consignments/{id}/plans',
    tag,
    role: 'seller',
    summary: 'Ask for a plan, or for another split of one',
    body: askPlanSchema,
    answer: planViewSchema,
    run: ({ params, body }) => askPlan(params.id, body),
  }),
  endpoint({
    method: 'POST',
    path: '/consignments/{id}/take',
    tag,
    role: 'seller',
    summary: 'Take a plan: its units are set aside',
    body: takePlanSchema,
    answer: z.object({ shipments: z.number() }),
    run: ({ actor, params, body }) => takePlan(actor, params.id, body),
  }),
  endpoint({
    method: 'POST',
    path: '/consignments/{id}/packed',
    tag,
    role: 'packer',
    summary: 'A scan while packing: into which box it goes, once however often it is sent',
    body: packScanSchema,
    answer: packedSchema,
    run: ({ actor, params, body }) => packScan(actor, params.id, body),
  }),
  endpoint({
    method: 'POST',
    path: '/consignments/{id}/off',
    tag,
    role: 'seller',
    summary: 'Call off a consignment for which no plan was taken',
    body: nothing,
    answer: done,
    run: ({ params }) => callOff(params.id),
  }),
  endpoint({
    method: 'PUT',
    path: '/shipments/{id}/boxes',
    tag,
    role: 'packer',
    summary: 'Say what is in which box, what it weighs and how large it is',
    body: setBoxesSchema,
    answer: versioned,
    run: ({ params, body }) => setBoxes(params.id, body),
  }),
  endpoint({
    method: 'POST',
    path: '/shipments/{id}/contents',
    tag,
    role: 'packer',
    summary: 'Box contents out of a CSV',
    body: contentsFileSchema,
    answer: versioned.extend({ boxes: z.number() }),
    run: ({ params, body }) => readContentsFile(params.id, body),
  }),
  endpoint({
    method: 'POST',
    path: '/shipments/{id}/tell',
    tag,
    role: 'seller',
    summary: 'Check its boxes and tell the marketplace what is in them',
    body: nothing,
    answer: z.object({ boxes: z.number() }),
    run: ({ params }) => tellBoxes(params.id),
  }),
  endpoint({
    method: 'GET',
    path: '/shipments/{id}/quotes',
    tag,
    role: 'seller',
    summary: 'What each carrier asks for all of its boxes',
    answer: z.object({ quotes: z.array(carrierQuoteSchema) }),
    run: async ({ params }) => ({ quotes: await shipmentQuotes(params.id) }),
  }),
  streamed({
    path: '/shipments/{id}/papers',
    tag,
    role: 'packer',
    summary: 'Box labels of 4 × 6 inches, contents labels or the packing list, as a PDF',
    query: papersSchema,
    media: 'application/octet-stream',
    answer: z.string(),
    run: async ({ params, query }) => {
      const { title, pdf } = await shipmentPapers(params.id, query);
      return fileResponse(Readable.from([Buffer.from(await pdf())]), { mime: 'application/pdf', name: `${title}.pdf` });
    },
  }),
  endpoint({
    method: 'POST',
    path: '/shipments/{id}/ship',
    tag,
    role: 'seller',
    summary: 'Mark it as shipped, with its tracking numbers',
    body: shipSchema,
    answer: stateAnswer,
    run: ({ actor, params, body }) => shipShipment(actor, params.id, body),
  }),
  endpoint({
    method: 'POST',
    path: '/shipments/{id}/follow',
    tag,
    role: 'seller',
    summary: 'Ask what has become of it',
    body: nothing,
    answer: stateAnswer,
    run: ({ actor, params }) => followShipment(actor, params.id),
  }),
  endpoint({
    method: 'POST',
    path: '/shipments/{id}/claims',
    tag,
    role: 'seller',
    summary: 'Claim what did not arrive, with a note',
    body: claimSchema,
    answer: z.object({ claims: z.number() }),
    run: ({ actor, params, body }) => claimMissing(actor, params.id, body),
  }),
  endpoint({
    method: 'POST',
    path: '/shipments/{id}/lost',
    tag,
    role: 'seller',
    summary: 'Give up what is still missing of a stock number',
    body: giveUpSchema,
    answer: z.object({ lost: z.number() }),
    run: ({ actor, params, body }) => giveUpMissing(actor, params.id, body),
  }),
  endpoint({
    method: 'POST',
    path: '/shipments/{id}/off',
    tag,
    role: 'seller',
    summary: 'Call off a shipment that has not gone: its units are here again',
    body: nothing,
    answer: done,
    run: ({ actor, params }) => callShipmentOff(actor, params.id),
  }),
];
