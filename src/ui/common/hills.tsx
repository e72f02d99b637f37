import hillsCss from './hills.module.css';

/** The product's mark: two ridges. */
export function Mark({ size = 24 }: { size?: number }) {
  return (
    <svg width={size} height={size * 0.6} viewBox="0 0 40 24" aria-hidden="true">
      <path d="M0 24 14 5l8 11 5-6 13 14z" fill="var(--moss)" />
      <path d="m14 5 4.5 6.2L14 14l-4-3.6z" fill="var(--straw)" />
    </svg>
  );
}

/** A moor at dawn, in the theme's own colours. */
export function Hills() {
  return (
    <svg className={hillsCss.hills} viewBox="0 0 400 120" preserveAspectRatio="none" height="110" aria-hidden="true">
      <path d="M0 120V70l60-30 50 25 70-45 80 50 60-20 80 35v35z" fill="var(--off)" />
      <path d="M0 120V95l80-20 70 15 90-30 70 25 90-15v50z" fill="var(--moss)" opacity="0.55" />
      <path d="M0 120v-12l120-10 110 8 170-14v28z" fill="var(--moss)" />
    </svg>
  );
}
