export function Logo() {
  return (
    <svg width="30" height="24" viewBox="0 0 30 24" aria-hidden="true" fill="none">
      <path d="M1 9 29 4" stroke="var(--ink)" strokeWidth="2.4" strokeLinecap="round" />
      <path d="M4 9v13M26 5v17" stroke="var(--ink)" strokeWidth="2" />
      <path d="M4 15h22M2 22h26" stroke="var(--teal)" strokeWidth="2" />
      <path d="M9 15v7M13 15v7M17 15v7M21 15v7" stroke="var(--teal)" strokeWidth="1.6" />
      <path d="M15 7v2" stroke="var(--ink)" strokeWidth="1.2" />
      <circle cx="15" cy="11" r="2.2" fill="var(--lamp)" />
    </svg>
  );
}
