// MaterialBalls.tsx — materials to choose from, each as a small lit ball.
import { X } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { ballPicture, type Material, madeOf, type NamedMaterial } from '../../../../../core/index.ts';

const BALL_PIXELS = 44;

interface MaterialBallsProps {
  title: string;
  of: readonly NamedMaterial[];
  /** Of those that keep what they are put on. */
  colour: string;
  onPick: (picked: NamedMaterial) => void;
  onForget?: (gone: NamedMaterial) => void;
}

export function MaterialBalls({ title, of, colour, onPick, onForget }: MaterialBallsProps) {
  return (
    <ul aria-label={title} className="my-2 grid grid-cols-4 gap-1">
      {of.map((named) => (
        <li key={named.id} className="group relative">
          <button
            type="button"
            className="flex w-full flex-col items-center rounded-edge p-1 text-center text-[12px] leading-tight hover:bg-wash"
            onClick={() => onPick(named)}
          >
            <Ball material={madeOf(named, { colour })} />
            {named.name}
          </button>
          {onForget && (
            <button
              type="button"
              aria-label={`Forget ${named.name}`}
              className="absolute top-0 right-0 grid size-6 place-items-center rounded-edge text-quiet opacity-0 hover:bg-wash focus-visible:opacity-100 group-hover:opacity-100"
              onClick={() => onForget(named)}
            >
              <X size={13} aria-hidden />
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}

function Ball({ material }: { material: Material }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const look = JSON.stringify(material);
  useEffect(() => {
    const size = BALL_PIXELS * Math.ceil(window.devicePixelRatio);
    const element = canvas.current!;
    element.width = size;
    element.height = size;
    element.getContext('2d')!.putImageData(new ImageData(ballPicture(JSON.parse(look), size), size, size), 0, 0);
  }, [look]);
  return <canvas ref={canvas} aria-hidden style={{ width: BALL_PIXELS, height: BALL_PIXELS }} />;
}
