/** Made when the application is built: see scripts/run/modelNames.ts. */
declare module 'virtual:model-names' {
  export const PLANNER: string;
  export const ENGRAVER: string;
}
