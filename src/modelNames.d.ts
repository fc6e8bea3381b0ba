/** Made when the application is built: see scripts/build/modelNames.ts. */
declare module 'virtual:model-names' {
  export const PLANNER: string;
  export const ENGRAVER: string;
}
