import { TextDecoder, TextEncoder } from 'node:util';
/* global Headers, Response */
import { TestEnvironment } from 'jest-environment-jsdom';

/** The environment of component tests, with what every browser has and jsdom leaves to its host. */
export default class BrowserEnvironment extends TestEnvironment {
  async setup() {
    await super.setup();
    Object.assign(this.global, { TextDecoder, TextEncoder, structuredClone, Headers, Response });
  }
}
