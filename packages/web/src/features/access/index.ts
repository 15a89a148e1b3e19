export { Account } from './Account.js';
export { Join } from './Join.js';
export { OwnSites } from './OwnSites.js';
export { People } from './People.js';
export { SignInPage } from './SignInPage.js';
export { Welcome } from './Welcome.js';
