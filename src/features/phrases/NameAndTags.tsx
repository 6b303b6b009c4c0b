'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { StoredPhrase } from '@/server/phrases';
import { changePhrase } from './phraseServer';

/** What the phrase is called and found by; kept as it is written. */
export function NameAndTags({ stored }: { stored: StoredPhrase }) {
  const router = useRouter();
  const [name, setName] = useState(stored.name);
  const [tags, setTags] = useState(stored.tags.join(', '));
  const [words, setWords] = useState('');
  const save = () => {
    const list = [...new Set(tags.split(',').map((tag) => tag.trim().slice(0, 32)))]
      .filter(Boolean)
      .slice(0, 12);
    if (name.trim() === stored.name && list.join(', ') === stored.tags.join(', ')) return;
    changePhrase(stored.id, { name: name.trim() || stored.name, tags: list })
      .then(() => {
        setWords('Saved.');
        router.refresh();
      })
      .catch((error: Error) => setWords(error.message));
  };
  return (
    <section aria-label="Name and tags" className="grid gap-2">
      <Field label="Name" value={name} most={80} onChange={setName} onDone={save} />
      <Field label="Tags" value={tags} most={300} onChange={setTags} onDone={save} />
      <p role="status" className="min-h-6 text-[15px] text-dim">
        {words}
      </p>
    </section>
  );
}

type FieldProps = {
  label: string;
  value: string;
  most: number;
  onChange: (value: string) => void;
  onDone: () => void;
};
const Field = ({ label, value, most, onChange, onDone }: FieldProps) => (
  <label className="grid grid-cols-[56px_minmax(0,1fr)] items-center gap-2 text-dim">
    {label}
    <input
      className="field !py-1 text-ink"
      value={value}
      maxLength={most}
      onChange={(event) => onChange(event.target.value)}
      onBlur={onDone}
      onKeyDown={(event) => {
        if (event.key === 'Enter') onDone();
      }}
    />
  </label>
);
