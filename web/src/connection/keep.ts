import { signal } from "../base/signal";

/** A change that was touched while Bodega did not answer. */
export interface Touched {
  method: string;
  path: string;
  body: string | null;
  /** When it was touched, on this page's steady clock, in milliseconds. */
  at: number;
}

/** One that was refused when it arrived, in the server's words. */
export interface Late {
  touched: Touched;
  words: string;
}

/** What became of a touch that was sent: it arrived, it was refused in these words, or there is still no connection. */
export type Sent = { is: "arrived" } | { is: "refused"; words: string } | { is: "lost" };

export interface Keeping {
  connected: boolean;
  waiting: readonly Touched[];
  late: readonly Late[];
}

/**
 * Whether Bodega answers, and what waits for it. Touches are kept in their order and sent one after the other, each with
 * its age, because the clock of a device may be wrong and the time between two glances at a steady one is not.
 */
export class Keep {
  private state: Keeping = { connected: true, waiting: [], late: [] };
  private readonly changed = signal();
  private sending = false;

  constructor(private readonly steady: () => number) {}

  readonly subscribe = this.changed.subscribe;

  readonly now = (): Keeping => this.state;

  private change(part: Partial<Keeping>) {
    this.state = { ...this.state, ...part };
    this.changed.tell();
  }

  /** Says whether Bodega answered just now. */
  heard(connected: boolean) {
    if (this.state.connected !== connected) this.change({ connected });
  }

  /** Keeps a touch for later. */
  add(touched: Omit<Touched, "at">) {
    this.change({ connected: false, waiting: [...this.state.waiting, { ...touched, at: this.steady() }] });
  }

  /** Somebody has seen what was refused. */
  seen() {
    this.change({ late: [] });
  }

  /** Sends what waits, oldest first, until it is gone or the connection is; returns how many arrived. */
  async send(by: (touched: Touched, ageMs: number) => Promise<Sent>): Promise<number> {
    if (this.sending) return 0;
    this.sending = true;
    let arrived = 0;
    try {
      for (let next = this.state.waiting[0]; next !== undefined; next = this.state.waiting[0]) {
        const sent = await by(next, Math.max(0, Math.round(this.steady() - next.at)));
        if (sent.is === "lost") {
          this.heard(false);
          break;
        }
        const waiting = this.state.waiting.slice(1);
        if (sent.is === "arrived") {
          arrived += 1;
          this.change({ waiting });
        } else {
          this.change({ waiting, late: [...this.state.late, { touched: next, words: sent.words }] });
        }
      }
    } finally {
      this.sending = false;
    }
    return arrived;
  }
}
