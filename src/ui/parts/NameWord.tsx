import { FieldWord } from "./FieldWord";

const LONGEST = 200;

/** The name of an object as the first word of its sentence: typed in place, never empty. */
export function NameWord({ label, name, onChange }: { label: string; name: string; onChange: (name: string) => void }) {
  return (
    <FieldWord
      label={label}
      main
      text={name}
      rule="A name, please."
      width={280}
      read={(typed) => (typed.trim() === "" || typed.length > LONGEST ? null : typed.trim())}
      onChange={onChange}
    />
  );
}
