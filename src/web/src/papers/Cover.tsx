import { t } from '@lingui/core/macro';
import { useMemo } from 'react';
import { drawCover } from '../model/drawing';
import { useAsset, usePictureAddress } from '../data/useAsset';
import { DrawingPieces } from './PaperPicture';
import { useWorkspace } from '../data/useWorkspace';
import { hexOf } from '../model/colours';

const mostLines = 4;
const lineCharacters = 11;
/** Letters are at most so large, and on average so wide in relation to their size; a line has so much room. */
const mostSize = 115;
const letterShare = 0.57;
const titleRoom = 650;

/** A notebook's cover: the pattern that Core draws from its name, in its colour, or a picture of its own; its title set on it. */
export function Cover({
  node,
  width = 84,
  space,
}: {
  node: { name: string; colour: string; cover: string; source?: string | undefined };
  width?: number;
  space?: string | undefined;
}) {
  const { core } = useWorkspace();
  const drawing = useMemo(
    () => drawCover(core, node.cover, hexOf[node.colour] ?? hexOf.spruce!, node.name),
    [core, node.cover, node.colour, node.name],
  );
  const lines = titleLines(node.name);
  const longest = Math.max(1, ...lines.map((line) => line.length));
  const size = Math.min(mostSize, titleRoom / (longest * letterShare));
  const source = space ? node.source : undefined;
  const picture = usePictureAddress(useAsset(space, source));
  return (
    <svg
      viewBox="0 0 840 1140"
      width={width}
      height={(width * 114) / 84}
      className="shrink-0 rounded-[3px]"
      role="img"
      aria-label={t`Cover of ${node.name}`}
    >
      <rect width="840" height="1140" fill={drawing.ground} />
      {source ? (
        picture && <image href={picture} width="840" height="1140" preserveAspectRatio="xMidYMid slice" />
      ) : (
        <DrawingPieces drawing={drawing} />
      )}
      {source && (
        <rect x="70" y={90} width="770" height={lines.length * 130 + 60} fill={drawing.ground} fillOpacity="0.86" />
      )}
      <text className="font-title" fontSize={size} fill="#fffdf7" fontWeight="500">
        {lines.map((line, i) => (
          <tspan key={i} x={node.cover === 'label' && !source ? 180 : 140} y={210 + i * 130}>
            {line}
          </tspan>
        ))}
      </text>
    </svg>
  );
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
