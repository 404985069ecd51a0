// What stands there before the app is listened to from the first moment on; the app itself comes after it.
import './src/shell/start/before';
import 'expo-router/entry';
