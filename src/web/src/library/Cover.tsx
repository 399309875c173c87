import { inkOf } from './palette';

const mostLines = 4;
const lineCharacters = 11;
/** Letters are at most so large, and on average so wide in relation to their size; a line has so much room. */
const mostSize = 11.5;
const letterShare = 0.57;
const titleRoom = 65;

/** A notebook's cover, drawn from its title, colour and pattern. */
export function Cover({ node, width = 84 }: { node: { name: string; colour: string; cover: string }; width?: number }) {
  const lines = titleLines(node.name);
  const longest = Math.max(1, ...lines.map((line) => line.length));
  return (
    <svg viewBox="0 0 84 114" width={width} height={(width * 114) / 84} className="shrink-0 rounded-[3px]" role="img" aria-label={`Cover of ${node.name}`}>
      <rect width="84" height="114" fill={inkOf[node.colour] ?? inkOf.spruce} />
      <Pattern name={node.cover} />
      <path d="M0 0h7v114H0z" fill="#000" fillOpacity=".14" />
      <path d="M7 0v114" stroke="#fff" strokeOpacity=".14" />
      <text className="font-title" fontSize={Math.min(mostSize, titleRoom / (longest * letterShare))} fill="#fffdf7" fontWeight="500">
        {lines.map((line, i) => (
          <tspan key={i} x="14" y={21 + i * 13}>
            {line}
          </tspan>
        ))}
      </text>
    </svg>
  );
}

function Pattern({ name }: { name: string }) {
  const line = { fill: 'none', stroke: '#fffdf7', strokeOpacity: 0.38 };
  switch (name) {
    case 'dots':
      return (
        <g fill="#fffdf7" fillOpacity=".4">
          {Array.from({ length: 20 }, (_, i) => (
            <circle key={i} cx={20 + (i % 5) * 14} cy={70 + Math.floor(i / 5) * 13} r={0.9 + ((i * 7) % 5) * 0.6} />
          ))}
        </g>
      );
    case 'waves':
      return (
        <g {...line}>
          {[62, 71, 80, 89, 98, 107].map((y) => (
            <path key={y} d={`M7 ${y}c8-5 12-5 20 0s12 5 20 0 12-5 20 0 12 5 20 0`} />
          ))}
        </g>
      );
    case 'rays':
      return (
        <g {...line}>
          {Array.from({ length: 15 }, (_, i) => (
            <path key={i} d={`M60 62L${-20 + i * 11} 118`} />
          ))}
        </g>
      );
    case 'lattice':
      return (
        <g {...line}>
          {Array.from({ length: 12 }, (_, i) => (
            <path key={i} d={`M${-30 + i * 12} 114l50-50M${10 + i * 12} 114l-50-50`} />
          ))}
        </g>
      );
    default:
      return (
        <g {...line}>
          {[8, 15, 22, 30, 38, 47, 56].map((r) => (
            <circle key={r} cx="62" cy="96" r={r} />
          ))}
        </g>
      );
  }
}

function titleLines(title: string): string[] {
  const lines: string[] = [];
  for (const word of title.split(/\s+/)) {
    const last = lines[lines.length - 1];
    if (last !== undefined && last.length + word.length < lineCharacters) lines[lines.length - 1] = `${last} ${word}`;
    else lines.push([...word].length > lineCharacters ? `${[...word].slice(0, lineCharacters - 1).join('')}…` : word);
  }
  return lines.length > mostLines ? [...lines.slice(0, mostLines - 1), `${lines[mostLines - 1]} …`] : lines;
}
