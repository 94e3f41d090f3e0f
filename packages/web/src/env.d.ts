declare module '*.vue' {
  import type { DefineComponent } from 'vue'
  const component: DefineComponent<object, object, unknown>
  export default component
}
declare module '*.css'
declare module '@fontsource-variable/literata/index.css'
declare module '@fontsource-variable/literata/wght-italic.css'
