import { Select } from "~/ui/fields";

const states = [
  { id: "unseen", name: "not looked at" },
  { id: "yes", name: "yes" },
  { id: "no", name: "no" },
] as const;

/** What a person must look at: nobody has yet, yes, or no. */
export function LookField({
  label,
  value,
  onChange,
}: {
  label: string;
  value: boolean | undefined;
  onChange: (value: boolean | undefined) => void;
}) {
  return (
    <Select
      label={label}
      value={value === undefined ? "unseen" : value ? "yes" : "no"}
      options={states}
      onChange={(next) => onChange(next === "unseen" ? undefined : next === "yes")}
    />
  );
}
