import { Chance } from './chance';

/** How often what goes wrong, 0 to 1. */
export interface ChaosSettings {
  seed: number;
  /** A request never leaves. */
  unsent: number;
  /** A request is done, and its answer never comes. */
  cut: number;
  /** A request is sent twice, and the second answer is the one that comes. */
  twice: number;
  /** Answers come late, and so in another order. */
  late: number;
  /** A transaction of the device's store is aborted after it was begun. */
  aborted: number;
  /** The device's clock is off by this, ms. */
  clock: number;
}

/** How often what went wrong. */
export const counts = { unsent: 0, cut: 0, twice: 0, late: 0, aborted: 0 };

let settings: ChaosSettings | undefined;
let chance = new Chance(1);
const realNow = Date.now.bind(Date);
const realFetch = globalThis.fetch.bind(globalThis);
// eslint-disable-next-line typescript/unbound-method
const realTransaction = IDBDatabase.prototype.transaction;

/** Lets things go wrong from now on, or no more. */
export function setChaos(wanted: ChaosSettings | undefined): void {
  settings = wanted;
  if (wanted) chance = new Chance(wanted.seed);
  const clock = wanted?.clock ?? 0;
  Date.now = () => realNow() + clock;
}

/** Puts chance between the application and the network, and between it and the device's store. */
export function installChaos(): void {
  globalThis.fetch = async (input, init) => {
    if (!settings) return realFetch(input, init);
    const happens = (name: 'unsent' | 'cut' | 'twice' | 'late') => {
      const does = chance.next() < settings![name];
      if (does) counts[name]++;
      return does;
    };
    if (happens('unsent')) throw new TypeError('cut before it was sent');
    const [cut, twice, late] = [happens('cut'), happens('twice'), happens('late')];
    if (twice) await realFetch(input, init).catch(() => {});
    const answer = await realFetch(input, init);
    if (late) await new Promise((resolve) => setTimeout(resolve, 50 + chance.below(400)));
    if (cut) throw new TypeError('cut before it was answered');
    return answer;
  };
  IDBDatabase.prototype.transaction = function (this: IDBDatabase, stores, mode, options) {
    const transaction = realTransaction.call(this, stores as string[], mode, options);
    if (settings && mode === 'readwrite' && chance.next() < settings.aborted) {
      counts.aborted++;
      const abort = () => {
        try {
          transaction.abort();
        } catch {
          // It is over already.
        }
      };
      // At once, or when some of it was done.
      if (chance.next() < 0.5) queueMicrotask(abort);
      else setTimeout(abort, 0);
    }
    return transaction;
  };
}
