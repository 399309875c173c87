const fills: Record<string, string> = {
  plum: 'bg-plum text-white',
  sky: 'bg-sky text-white',
  lichen: 'bg-lichen text-[#16190d]',
  gold: 'bg-gold text-[#2a1c02]',
  madder: 'bg-madder text-white',
  spruce: 'bg-spruce text-white',
};

/** A person as their initials on their colour; the name is the tooltip and the accessible name. */
export function Avatar({ name, colour, size = 28 }: { name: string; colour: string; size?: number }) {
  const initials = name
    .split(/\s+/)
    .map((word) => [...word][0] ?? '')
    .join('')
    .slice(0, 2)
    .toUpperCase();
  return (
    <span
      role="img"
      aria-label={name}
      title={name}
      data-initials={initials}
      style={{ width: size, height: size, fontSize: Math.max(11, size * 0.4) }}
      className={`inline-grid shrink-0 before:content-[attr(data-initials)] place-items-center rounded-full border-2 border-base-100 font-semibold ${fills[colour] ?? fills.spruce}`}
    />
  );
}
