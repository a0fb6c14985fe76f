// The kit's themes by path: its types stand at its front door alone.
declare module 'react-native-paper/lib/module/styles/fonts' {
  export { configureFonts as default } from 'react-native-paper';
}
declare module 'react-native-paper/lib/module/styles/themes/v3/DarkTheme' {
  export { MD3DarkTheme } from 'react-native-paper';
}
declare module 'react-native-paper/lib/module/styles/themes/v3/LightTheme' {
  export { MD3LightTheme } from 'react-native-paper';
}
