export { backupsToKeep, isBackupDue, usualRotation, type Rotation } from './rotation.js';
