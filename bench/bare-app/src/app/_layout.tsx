import { Slot } from 'expo-router';

const Layout = () => <Slot />;

export default Layout;
