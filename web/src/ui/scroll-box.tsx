/** A table that is wider than a phone: it scrolls by itself, by touch and by keys, and the page stands still. */
export function ScrollBox({ label, className = '', children }: { label: string; className?: string; children: React.ReactNode }) {
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: a region that scrolls is reached by keyboard
    <section className={`relative overflow-x-auto ${className}`} aria-label={label} tabIndex={0}>
      {children}
    </section>
  )
}
