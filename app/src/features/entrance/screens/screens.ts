export { JoinByLink, NewPasswordByLink, PairByCode } from './by-link';
export { SetUp, SignIn } from './entrance';
