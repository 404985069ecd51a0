/** A client of RFC 6120: as much of it as the door to open messengers uses. */
declare module '@xmpp/client' {
  /** An element of a stream. */
  export interface Element {
    name: string;
    attrs: Readonly<Record<string, string | undefined>>;
    children: (Element | string)[];
    is(name: string, namespace?: string): boolean;
    getChild(name: string, namespace?: string): Element | undefined;
    getChildren(name: string, namespace?: string): Element[];
    getChildText(name: string, namespace?: string): string | null;
    text(): string;
  }

  type Child = Element | string;
  export function xml(
    name: string,
    attrs?: Readonly<Record<string, string | undefined>>,
    ...children: Child[]
  ): Element;

  interface Socket {
    pause?(): void;
    resume?(): void;
    setEncoding?(encoding: string): void;
    destroy?(): void;
    on(event: 'error', heard: (error: Error) => void): unknown;
    /** What carries it, where it is encrypted. */
    socket?: Socket | null;
  }

  interface Entity {
    socket: Socket | null;
    isSecure(): boolean;
  }

  type Authenticate = (
    by: { username: string; password: string },
    mechanism: string,
    userAgent?: Element,
  ) => Promise<void>;

  export interface Client extends Entity {
    status: string;
    /** How long an answer of the stream's own may take, in milliseconds. */
    timeout: number;
    /** What reads; null while nothing is read. */
    parser: object | null;
    _attachSocket: (socket: Socket) => void;
    _onData: (data: string | Buffer) => void;
    /** Moves to another host, where a server says so. */
    _onSeeOtherHost: (error: Error) => unknown;
    reconnect: { stop(): void };
    iqCaller: { request(iq: Element, timeoutMs?: number): Promise<Element> };
    on(event: 'online' | 'disconnect' | 'offline', heard: () => void): unknown;
    on(event: 'stanza' | 'element', heard: (stanza: Element) => void): unknown;
    on(event: 'error', heard: (error: Error) => void): unknown;
    /** Hears it before whoever listens already. */
    prependListener(event: 'element', heard: (element: Element) => void): unknown;
    connect(service: string): Promise<unknown>;
    open(to: { domain: string }): Promise<unknown>;
    stop(): Promise<unknown>;
    send(stanza: Element): Promise<void>;
  }

  export function client(options: {
    service: string;
    domain: string;
    resource?: string;
    timeout?: number;
    credentials: (
      authenticate: Authenticate,
      mechanisms: readonly string[],
      fast: unknown,
      entity: Entity,
    ) => Promise<void>;
    username?: string;
  }): Client;
}
