import { useEffect, useState } from 'react';
import { painted } from './painted';

interface PagePictureProps {
  address: string;
  /** With its edge, pixels. */
  width: number;
  height: number;
  alt?: string;
  className?: string;
  /** How a picture of another shape is laid in. */
  fit?: string;
  /** Of the paper, as long as there is no picture. */
  ground?: string;
  testId?: string;
  onFailed?: () => void;
}

const edge = 2;

/** A page's picture from the server, ready to be scrolled past; bare paper until it has come, or when there is none. */
export function PagePicture({
  address,
  width,
  height,
  alt = '',
  className = '',
  fit = 'object-contain',
  ground,
  testId,
  onFailed,
}: PagePictureProps) {
  /** Null when there is none. */
  const [source, setSource] = useState<string | null>();
  useEffect(() => {
    let ended = false;
    const { picture, leave } = painted(address, width - edge);
    void picture.then((found) => {
      if (ended) return;
      setSource(found ?? null);
      if (!found) onFailed?.();
    });
    return () => {
      ended = true;
      leave();
    };
    // Who shows it may be told of a failure by a new function each time; the picture is asked for once.
  }, [address, width]);
  const look = {
    className: `block border border-base-300 bg-paper ${fit} ${className}`,
    style: { width, height, background: ground },
    'data-testid': testId,
    'data-coming': source === undefined ? '' : undefined,
  };
  if (!source) return alt ? <span role="img" aria-label={alt} {...look} /> : <span {...look} />;
  return <img src={source} alt={alt} draggable={false} onError={onFailed} {...look} />;
}
