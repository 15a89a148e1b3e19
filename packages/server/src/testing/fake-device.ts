import { once } from 'node:events';
import { createServer, type AddressInfo, type Server, type Socket } from 'node:net';

/** How a device answers: as it should, or in one of the ways in which devices go wrong. */
export type Manner = 'answers' | 'closes' | 'trickles' | 'floods' | 'nonsense' | 'mute' | 'refuses';

const FLOOD = Buffer.alloc(64 * 1024, 0x5a);
const HEADER = 8;

/** A device that speaks Modbus TCP by its specification, byte by byte, as well or as badly as it is told to. */
export class FakeDevice {
  manner: Manner = 'answers';
  /** Questions that came. */
  questions = 0;
  /** Content of the registers; what is not named holds 0. */
  readonly holding = new Map<number, number>();
  private readonly sockets = new Set<Socket>();

  private constructor(private readonly server: Server) {
    server.on('connection', (socket) => {
      this.sockets.add(socket);
      socket.on('error', () => undefined);
      socket.once('close', () => this.sockets.delete(socket));
      if (this.manner === 'floods') this.flood(socket);
      socket.on('data', (asked: Buffer) => this.answer(socket, asked));
    });
  }

  static async start(port = 0): Promise<FakeDevice> {
    const server = createServer().listen(port, '127.0.0.1');
    await once(server, 'listening');
    return new FakeDevice(server);
  }

  get port(): number {
    return (this.server.address() as AddressInfo).port;
  }

  /** Resolves when whoever asks hangs up. */
  async nextGone(): Promise<void> {
    const [socket] = this.sockets;
    if (socket) await once(socket, 'close');
  }

  /** Its cable is pulled. */
  async stop(): Promise<void> {
    for (const socket of this.sockets) socket.destroy();
    this.server.close();
    await once(this.server, 'close');
  }

  /** Hours in tenths in registers 0 and 1, state in 2, outlet and room in 3 and 4. */
  shows(hours: number, more: { status?: number; outletC?: number; ambientC?: number } = {}): void {
    const tenths = Math.round(hours * 10);
    const { status = 2, outletC = 80, ambientC = 20 } = more;
    [tenths >>> 16, tenths & 0xffff, status, outletC, ambientC].forEach((word, at) =>
      this.holding.set(at, word),
    );
  }

  private answer(socket: Socket, asked: Buffer): void {
    this.questions += 1;
    const [from, count] = [asked.readUInt16BE(HEADER), asked.readUInt16BE(HEADER + 2)];
    const body = Buffer.alloc(3 + 2 * count);
    body[0] = asked[6]!;
    body[1] = asked[7]!;
    body[2] = 2 * count;
    for (let at = 0; at < count; at++) body.writeUInt16BE(this.holding.get(from + at) ?? 0, 3 + 2 * at);
    const whole = framed(asked, body);
    switch (this.manner) {
      case 'answers':
        socket.write(whole);
        return;
      case 'closes':
        socket.write(whole.subarray(0, 9));
        socket.end();
        return;
      case 'trickles':
        this.trickle(socket, whole);
        return;
      case 'nonsense':
        socket.write(framed(asked, Buffer.from([asked[6]!, asked[7]!, 2 * count, 1])));
        return;
      case 'refuses':
        socket.write(framed(asked, Buffer.from([asked[6]!, asked[7]! | 0x80, 2])));
        return;
      case 'floods':
      case 'mute':
    }
  }

  private trickle(socket: Socket, bytes: Buffer): void {
    let at = 0;
    const timer = setInterval(() => {
      if (socket.destroyed || at >= bytes.length) clearInterval(timer);
      else socket.write(bytes.subarray(at, ++at));
    }, 100);
  }

  private flood(socket: Socket): void {
    const more = () => {
      while (!socket.destroyed && socket.write(FLOOD));
    };
    socket.on('drain', more);
    more();
  }
}

/** A body with its head: the number of the question, the protocol, and how long it is. */
function framed(asked: Buffer, body: Buffer): Buffer {
  const head = Buffer.alloc(6);
  asked.copy(head, 0, 0, 4);
  head.writeUInt16BE(body.length, 4);
  return Buffer.concat([head, body]);
}

/** The table of registers of such a device. */
export const FAKE_REGISTERS = `what,table,register,type,factor
hours-total,holding,0,u32,0.1
status,holding,2,u16,1
outlet-c,holding,3,i16,1
ambient-c,holding,4,i16,1
`;
