export { MailScreen as default } from '../../features/mail/screens/mail';
export { ErrorBoundary } from '../../shell/offline/error-boundary';
