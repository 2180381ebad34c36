import { randomBytes, randomUUID } from 'node:crypto';
import { Webhook } from 'standardwebhooks';
import type { Json } from './types';
import type { World } from './world';

export type Hook = { id: string; market: string; seller: string; url: string; secret: string };
type Delivery = { id: string; hook: Hook; body: string; tries: number; due: number; at: number };

const pauses = [500, 2_000, 5_000, 15_000, 60_000, 300_000];

export const newHookSecret = (): string => `whsec_${randomBytes(24).toString('base64')}`;

/** Delivers signed events at least once; on request twice, late, or in the wrong order. */
export class Deliverer {
  readonly #world: World;
  #timer: NodeJS.Timeout | null = null;
  #running = false;

  constructor(world: World) {
    this.#world = world;
  }

  start(): void {
    this.#timer = setInterval(() => void this.#run(), 100);
  }

  stop(): void {
    if (this.#timer) clearInterval(this.#timer);
  }

  /** Queues an event for the seller's hooks. */
  async send(market: string, seller: string, type: string, data: Record<string, Json>): Promise<void> {
    if (!this.#world.market(market)?.hasWebhooks) return;
    const mood = this.#world.mood(market);
    const hooks = this.#world.store
      .all<Hook>('hooks')
      .filter((hook) => hook.market === market && hook.seller === seller);
    for (const hook of hooks) {
      const at = this.#world.now();
      const body = JSON.stringify({ type, timestamp: new Date(at).toISOString(), data });
      const id = `msg_${randomUUID()}`;
      const late = mood.delayMs + (mood.reorder ? Math.floor(Math.random() * 1_500) : 0);
      const times = mood.double ? 2 : 1;
      for (let copy = 0; copy < times; copy++) {
        const delivery: Delivery = { id, hook, body, tries: 0, due: Date.now() + late + copy * 50, at };
        await this.#world.store.put('deliveries', `${id}-${copy}`, delivery);
      }
    }
    void this.#run();
  }

  async #run(): Promise<void> {
    if (this.#running) return;
    this.#running = true;
    try {
      const due = this.#world.store.all<Delivery>('deliveries').filter((delivery) => delivery.due <= Date.now());
      await Promise.all(due.slice(0, 20).map((delivery) => this.#deliver(delivery)));
    } finally {
      this.#running = false;
    }
  }

  async #deliver(delivery: Delivery): Promise<void> {
    const keys = ['-0', '-1'].map((copy) => `${delivery.id}${copy}`);
    const key = keys.find((one) => this.#world.store.get('deliveries', one) === delivery);
    if (!key) return;
    const sentAt = new Date();
    try {
      const answer = await fetch(delivery.hook.url, {
        method: 'POST',
        headers: {
          'content-type': 'application/json',
          'webhook-id': delivery.id,
          'webhook-timestamp': String(Math.floor(sentAt.getTime() / 1000)),
          'webhook-signature': new Webhook(delivery.hook.secret).sign(delivery.id, sentAt, delivery.body),
        },
        body: delivery.body,
        signal: AbortSignal.timeout(10_000),
      });
      if (answer.ok || answer.status === 410) return await this.#world.store.remove('deliveries', key);
    } catch {
      // Not reachable: tried again below.
    }
    const pause = pauses[delivery.tries];
    if (pause === undefined) return this.#world.store.remove('deliveries', key);
    await this.#world.store.put('deliveries', key, { ...delivery, tries: delivery.tries + 1, due: Date.now() + pause });
  }
}
