export { Controller, type ControllerOptions } from './controller.js';
export { readRegisterFile } from './register-file.js';
