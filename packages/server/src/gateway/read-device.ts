import { Socket } from 'node:net';
import { registerKey, type RegisterRead, type RegisterTable } from '@entretien/core/gateway';
import type { ModbusRTU } from 'modbus-serial/ModbusRTU.js';

/** Why a device gave no answer, in a sentence. */
export class DeviceProblem extends Error {}

export interface DeviceAddress {
  readonly host: string;
  readonly port: number;
  readonly unitNumber: number;
}

/** How long is waited: for a connection, for one answer, for all of them; and how much is listened to. */
export interface ReadLimits {
  readonly connectMs: number;
  readonly answerMs: number;
  readonly wholeMs: number;
  readonly mostBytes: number;
}

/** A table of registers is a few hundred bytes; whatever sends more is not answering. */
export const USUAL_LIMITS: ReadLimits = {
  connectMs: 3000,
  answerMs: 2000,
  wholeMs: 8000,
  mostBytes: 16_384,
};

/** Content of the registers that were asked for; undefined of any other. */
export type Words = (table: RegisterTable, register: number) => number | undefined;

/**
 * Asks a device for registers, once: connects, reads, hangs up. Whatever it does it is over within the limits, and no
 * more is taken from it than they say.
 */
export async function readDevice(
  { host, port, unitNumber }: DeviceAddress,
  reads: readonly RegisterRead[],
  limits: ReadLimits = USUAL_LIMITS,
  signal?: AbortSignal,
): Promise<Words> {
  // Only whoever has devices pays for the library.
  const library: unknown = (await import('modbus-serial')).default;
  const socket = new Socket();
  const ended = endOf(socket, limits);
  const hangUp = () => socket.destroy();
  signal?.addEventListener('abort', hangUp, { once: true });
  try {
    await Promise.race([connected(socket, host, port, limits), ended]);
    const client = new (library as new () => ModbusRTU)();
    await Promise.race([client.linkTCP(socket, { port }), ended]);
    client.setID(unitNumber);
    client.setTimeout(limits.answerMs);
    const words = new Map<string, number>();
    for (const { table, from, count } of reads) {
      const asked =
        table === 'holding'
          ? client.readHoldingRegisters(from, count)
          : client.readInputRegisters(from, count);
      const { data } = await Promise.race([asked, ended]);
      data.forEach((word, at) => words.set(registerKey(table, from + at), word));
    }
    return (table, register) => words.get(registerKey(table, register));
  } catch (error) {
    throw error instanceof DeviceProblem ? error : new DeviceProblem(sentenceOf(error));
  } finally {
    signal?.removeEventListener('abort', hangUp);
    socket.destroy();
  }
}

function connected(socket: Socket, host: string, port: number, { connectMs }: ReadLimits): Promise<void> {
  return new Promise((resolve, reject) => {
    const timer = setTimeout(
      () => reject(new DeviceProblem(`Nobody answered at ${host}:${port} within ${connectMs / 1000} s.`)),
      connectMs,
    );
    socket.once('connect', () => {
      clearTimeout(timer);
      resolve();
    });
    socket.once('close', () => clearTimeout(timer));
    socket.connect({ host, port });
  });
}

/** Rejects when the connection ends, when it takes too long, or when more comes than was asked for. */
function endOf(socket: Socket, { wholeMs, mostBytes }: ReadLimits): Promise<never> {
  let received = 0;
  const end = new Promise<never>((_resolve, reject) => {
    const timer = setTimeout(
      () => reject(new DeviceProblem(`Its answer took longer than ${wholeMs / 1000} s.`)),
      wholeMs,
    );
    socket.on('data', (chunk: Buffer) => {
      received += chunk.length;
      if (received <= mostBytes) return;
      reject(new DeviceProblem('It sends without end: it was hung up on.'));
      socket.destroy();
    });
    socket.on('error', (error) => reject(new DeviceProblem(sentenceOf(error))));
    socket.once('close', () => {
      clearTimeout(timer);
      reject(new DeviceProblem('It closed the connection in the middle of its answer.'));
    });
  });
  // Nobody waits for it once everything is read.
  end.catch(() => undefined);
  return end;
}

/** Refusals of the protocol (its specification, section 7). */
const EXCEPTIONS: Readonly<Record<number, string>> = {
  1: 'it does not know that question',
  2: 'it has no such register',
  3: 'it does not give so many at once',
  4: 'it failed',
  6: 'it is busy',
  10: 'the way to it is closed',
  11: 'nobody answers behind it',
};

function sentenceOf(error: unknown): string {
  if (typeof error !== 'object' || error === null) return 'It does not answer.';
  const { code, errno, modbusCode, message } = error as {
    readonly code?: unknown;
    readonly errno?: unknown;
    readonly modbusCode?: unknown;
    readonly message?: unknown;
  };
  if (typeof modbusCode === 'number')
    return `It refuses (code ${modbusCode}): ${EXCEPTIONS[modbusCode] ?? 'it does not say why'}.`;
  if (code === 'ECONNREFUSED') return 'Nobody answers at its address.';
  if (code === 'EHOSTUNREACH' || code === 'ENETUNREACH') return 'There is no way to its address.';
  if (code === 'ECONNRESET') return 'It closed the connection in the middle of its answer.';
  if (errno === 'ETIMEDOUT' || code === 'ETIMEDOUT') return 'It took too long to answer.';
  return typeof message === 'string' && message !== ''
    ? `Its answer could not be read: ${message.slice(0, 120)}.`
    : 'It does not answer.';
}
