/** Every sample person's password. Used by the demo alone, which makes no secret of it. */
export const DEMO_PASSWORD = 'cloudmoor-mist';
