/** The demo's teacher. The sign-in page shows this in demo mode only. */
export const DEMO_ACCOUNT = {
  studio: 'Studio Ostenfold',
  teacher: 'Mira Ostenfold',
  email: 'mira@ostenfold.example',
  password: 'quiet-cedar-six',
} as const;
