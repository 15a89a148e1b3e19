export { admitPassword, normalLogin, normalPassword, passwordLimits } from './password.js';
export { hasRight, rightModules, rights, roles, type Right, type Role } from './rights.js';
