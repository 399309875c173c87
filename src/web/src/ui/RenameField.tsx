import { useId, useRef, useState } from 'react';

/**
 * A name being changed in its place. Enter, or going elsewhere, takes what was typed; Escape leaves it as it was. What is refused stays in the field with the reason,
 * so that nothing typed is lost.
 */
export function RenameField({
  name,
  label,
  className = '',
  placeholder,
  testId = 'rename-in-place',
  onRename,
  onEnd,
}: {
  name: string;
  label: string;
  className?: string;
  placeholder?: string;
  testId?: string;
  /** Answers with a sentence when the name cannot be had. Not asked when it is the same. */
  onRename: (name: string) => string | Promise<string>;
  onEnd: () => void;
}) {
  const [typed, setTyped] = useState(name);
  const [problem, setProblem] = useState('');
  const ended = useRef(false);
  const words = useId();
  const end = () => {
    ended.current = true;
    onEnd();
  };
  const take = async () => {
    if (ended.current) return;
    if (typed.trim() === name) return end();
    const refused = await onRename(typed.trim());
    if (refused) setProblem(refused);
    else end();
  };
  return (
    <span className="relative block min-w-0 grow">
      <input
        className={`field w-full ${className} ${problem ? 'border-error' : ''}`}
        aria-label={label}
        aria-invalid={problem !== ''}
        aria-describedby={problem ? words : undefined}
        data-testid={testId}
        value={typed}
        placeholder={placeholder}
        autoFocus
        onFocus={(event) => event.target.select()}
        onChange={(event) => (setTyped(event.target.value), setProblem(''))}
        onBlur={() => void take()}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === 'Enter') void take();
          else if (event.key === 'Escape') end();
        }}
        onPointerDown={(event) => event.stopPropagation()}
      />
      {problem && (
        <span
          id={words}
          role="alert"
          data-testid="rename-problem"
          className="absolute start-0 top-full z-20 mt-1 w-max max-w-full rounded-md border border-error bg-base-100 px-2 py-1 text-[13px] font-normal text-error"
        >
          {problem}
        </span>
      )}
    </span>
  );
}
