import { ChevronDown } from "lucide-react";
import { memo, type ReactNode, useEffect, useRef, useState } from "react";
import {
  Button as AriaButton,
  SearchField as AriaSearchField,
  Select as AriaSelect,
  Slider as AriaSlider,
  Switch as AriaSwitch,
  TextField as AriaTextField,
  FieldError,
  Header,
  Input,
  Label,
  ListBox,
  ListBoxItem,
  ListBoxSection,
  Popover,
  SelectValue,
  SliderOutput,
  SliderThumb,
  SliderTrack,
} from "react-aria-components";
import { flushSync } from "react-dom";
import styled from "styled-components";
import { askedBy } from "~/asking/asker";
import type { Dimension } from "~/core/units/factors";
import { otherUnit, showQuantity } from "~/core/units/format";
import { parseQuantity, type QuantityFault } from "~/core/units/parse";
import { fieldText } from "~/core/units/trade";

const Field = styled.div`
  display: grid; gap: 2px; min-width: 0; align-content: start;
  > div { display: grid; gap: 2px; align-content: start; min-width: 0; grid-template-columns: minmax(0, 1fr); }
`;
const FieldLabel = styled(Label)`
  font-size: 13px; color: var(--soft); font-stretch: 82%;
`;
const Box = styled(Input)`
  width: 100%; min-height: 32px; padding: 4px 8px; border: 1px solid var(--idle); border-radius: 2px; background: var(--raised);
  @media (pointer: coarse) { min-height: 44px; }
  &[data-focused] { outline: 2px solid var(--act); outline-offset: 0; }
  &[data-invalid] { border: 2px solid var(--danger); }
`;
const Fault = styled(FieldError)`
  color: var(--danger); font-size: 13px; font-weight: 550;
`;
const Under = styled.div`
  && { display: flex; } gap: 8px; align-items: center; font-size: 12px; color: var(--soft); min-height: 18px; white-space: nowrap; overflow: hidden;
`;

/** A draft that stands in a field when the page is hidden or left is kept, not lost. */
function useKeptOnLeaving(commit: () => void): void {
  const latest = useRef(commit);
  useEffect(() => {
    latest.current = commit;
  });
  useEffect(() => {
    const onHide = () => document.visibilityState === "hidden" && latest.current();
    document.addEventListener("visibilitychange", onHide);
    return () => document.removeEventListener("visibilitychange", onHide);
  }, []);
}

/**
 * The text of a field as it is typed. It follows what is stored, but for a text that the hand is in and has not handed
 * over: an earlier figure of the same field, or another tab's, may be stored while the next is being typed.
 */
function useDraft(shown: string) {
  const [draft, setDraft] = useState(shown);
  const [fault, setFault] = useState<string | null>(null);
  const [kept, setKept] = useState(shown);
  const [sent, setSent] = useState<string | null>(null);
  const [isIn, setIn] = useState(false);
  if (kept !== shown) {
    setKept(shown);
    if (!isIn || draft === kept || draft === sent) {
      setDraft(shown);
      setFault(null);
    }
  }
  return {
    draft,
    setDraft,
    fault,
    setFault,
    onFocus: () => setIn(true),
    onBlur: () => setIn(false),
    /** Handed over: what the store makes of it may take its place. */
    send: () => setSent(draft),
    /** What was handed over is not taken: the field shows what is stored, and why. */
    refuse: (refusal: string) => {
      setDraft((now) => (now === draft ? shown : now));
      setFault(refusal);
    },
  };
}

interface TextProps {
  label: string;
  value: string;
  onCommit: (value: string) => void;
  /** What is wrong with a text, in a sentence; the old one stays then. */
  check?: (text: string) => string | null;
  autoFocus?: boolean;
  name?: string;
}

/** Words that are sought as they are typed; Escape clears them. */
export function SearchField({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (text: string) => void;
}) {
  return (
    <Field>
      <AriaSearchField value={value} onChange={onChange}>
        <FieldLabel>{label}</FieldLabel>
        <Box />
      </AriaSearchField>
    </Field>
  );
}

/** A line of text that is kept on Enter or on leaving it. */
export function TextField({ label, value, onCommit, check, autoFocus, name }: TextProps) {
  const { draft, setDraft, fault, onFocus, onBlur, send, refuse } = useDraft(value);
  const field = useRef<HTMLDivElement>(null);
  const refused = (refusal: string) => {
    refuse(refusal);
    return field.current !== null;
  };
  const commit = () => {
    const tidy = draft.trim();
    const wrong = check?.(tidy) ?? null;
    if (tidy === "") setDraft(value);
    else if (wrong !== null) refused(wrong);
    else if (tidy !== value) {
      send();
      askedBy(refused, () => onCommit(tidy));
    }
  };
  useKeptOnLeaving(commit);
  return (
    <Field ref={field}>
      <AriaTextField
        value={draft}
        onChange={setDraft}
        onFocus={onFocus}
        onBlur={() => {
          commit();
          onBlur();
        }}
        isInvalid={fault !== null}
        validationBehavior="aria"
        {...(autoFocus !== undefined && { autoFocus })}
        {...(name !== undefined && { name })}
      >
        <FieldLabel>{label}</FieldLabel>
        <Box onKeyDown={(event) => event.key === "Enter" && commit()} maxLength={80} />
        <Fault>{fault}</Fault>
      </AriaTextField>
    </Field>
  );
}

/** A day; kept as it is chosen, as YYYY-MM-DD. */
export function DateField({
  label,
  value,
  onCommit,
}: {
  label: string;
  value: string;
  onCommit: (day: string) => void;
}) {
  return (
    <Field>
      <AriaTextField value={value} onChange={(day) => /^\d{4}-\d\d-\d\d$/.test(day) && onCommit(day)}>
        <FieldLabel>{label}</FieldLabel>
        <Box type="date" />
      </AriaTextField>
    </Field>
  );
}

export interface QuantityProps {
  label: string;
  dimension: Dimension;
  unit: string;
  value: number | undefined;
  /** SI value and the text it was typed as. */
  onCommit: (si: number, entered: string) => void;
  /** Sentence for a text that was not understood. */
  faultText: (fault: QuantityFault) => string;
  /** Refuses a value with a reason. */
  check?: ((si: number) => string | null) | undefined;
  /** Marked where a number is assumed rather than measured or the maker's. */
  basis?: "measured" | "maker" | "assumed" | undefined;
  entered?: string | undefined;
  /** Typed in its own unit, in a hurry: a phone shows its keys for numbers. */
  isPlain?: boolean;
}

/** A number with its unit: the text is kept while it is typed, the number in SI is kept on Enter or on leaving. */
export function QuantityField({
  label,
  dimension,
  unit,
  value,
  onCommit,
  faultText,
  check,
  basis,
  entered,
  isPlain = false,
}: QuantityProps) {
  const shown = value === undefined ? "" : fieldText(dimension, value, unit);
  const { draft, setDraft, fault, setFault, onFocus, onBlur, send, refuse } = useDraft(shown);
  const [other, setOther] = useState(false);
  const field = useRef<HTMLDivElement>(null);
  const commit = () => {
    if (draft.trim() === shown) return setFault(null);
    const parsed = parseQuantity(draft, dimension, unit);
    if (!parsed.ok) return setFault(faultText(parsed.fault));
    const refused = check?.(parsed.si) ?? null;
    setFault(refused);
    if (refused !== null) return;
    // What the job refuses is told here, and the field shows what stands.
    const tell = (refusal: string) => {
      refuse(`${parsed.entered}: ${refusal}`);
      return field.current !== null;
    };
    send();
    askedBy(tell, () => onCommit(parsed.si, parsed.entered));
  };
  useKeptOnLeaving(commit);
  const second = otherUnit[unit];
  return (
    <Field ref={field}>
      <AriaTextField
        value={draft}
        onChange={setDraft}
        onFocus={onFocus}
        onBlur={() => {
          commit();
          onBlur();
        }}
        isInvalid={fault !== null}
        validationBehavior="aria"
      >
        <FieldLabel>{label}</FieldLabel>
        <Box
          inputMode={isPlain ? "decimal" : "text"}
          onKeyDown={(event) => event.key === "Enter" && commit()}
        />
        <Fault>{fault}</Fault>
      </AriaTextField>
      <Under>
        {basis !== undefined && (
          <Basis $assumed={basis === "assumed"}>
            {value === undefined ? "not known" : basis === "maker" ? "maker's" : basis}
          </Basis>
        )}
        {entered && entered !== shown && <span title="as typed">{entered}</span>}
        {second && value !== undefined && (
          <TapUnit onPress={() => setOther(!other)} aria-label={`${label} in ${second}`}>
            {other ? fieldText(dimension, value, second) : second}
          </TapUnit>
        )}
      </Under>
    </Field>
  );
}

const Basis = styled.span<{ $assumed: boolean }>`
  border-bottom: ${({ $assumed }) => ($assumed ? "1.5px dashed var(--soft)" : "none")};
`;
const TapUnit = styled(AriaButton)`
  border: 0; background: none; padding: 2px 4px; margin-left: auto; cursor: pointer; color: var(--act); font-size: 12px; text-decoration: underline dotted;
  min-height: var(--finger); min-width: var(--finger);
`;

interface SliderProps {
  label: string;
  value: number;
  min: number;
  max: number;
  step: number;
  output: string;
  onChange: (value: number) => void;
  onEnd?: (value: number) => void;
  ends?: readonly [string, string];
}

const SliderBox = styled(AriaSlider)`
  display: grid; grid-template-columns: 1fr auto; row-gap: 0; font-size: 13px;
  output { font-weight: 600; }
`;
const Track = styled(SliderTrack)`
  grid-column: 1 / -1; height: 32px; position: relative; cursor: pointer;
  @media (pointer: coarse) { height: 44px; }
  &::before { content: ""; position: absolute; left: 0; right: 0; top: 50%; height: 3px; margin-top: -1.5px; background: var(--idle); }
`;
const Done = styled.div`
  position: absolute; left: 0; top: 50%; height: 3px; margin-top: -1.5px; background: var(--act); pointer-events: none;
`;
const Thumb = styled(SliderThumb)`
  width: 20px; height: 20px; top: 50%; border-radius: 50%; background: var(--raised); border: 3px solid var(--act);
  &[data-dragging] { background: var(--act); }
  &[data-focus-visible] { outline: 2px solid var(--act); outline-offset: 2px; }
`;
const Ends = styled.div`
  grid-column: 1 / -1; display: flex; justify-content: space-between; color: var(--soft); font-size: 12px; margin-top: -4px;
`;

/** A slider for what is explored. `onChange` follows the hand; `onEnd` comes when it lets go. */
export const Slider = memo(function Slider({
  label,
  value,
  min,
  max,
  step,
  output,
  onChange,
  onEnd,
  ends,
}: SliderProps) {
  const share = max > min ? Math.min(1, Math.max(0, (value - min) / (max - min))) : 0;
  return (
    <SliderBox
      value={value}
      minValue={min}
      maxValue={max}
      step={step}
      // Drawn within the frame that brought the move: left to the scheduler, it would come a frame later.
      onChange={(next) => flushSync(() => onChange(Number(next)))}
      onChangeEnd={(next) => onEnd?.(Number(next))}
    >
      <FieldLabel>{label}</FieldLabel>
      <SliderOutput>{output}</SliderOutput>
      <Track>
        <Done style={{ width: `${share * 100}%` }} />
        <Thumb aria-label={label} />
      </Track>
      {ends && (
        <Ends>
          <span>{ends[0]}</span>
          <span>{ends[1]}</span>
        </Ends>
      )}
    </SliderBox>
  );
});

const Trigger = styled(AriaButton)`
  width: 100%; min-height: 32px; display: flex; align-items: center; justify-content: space-between; gap: 8px; padding: 4px 8px;
  border: 1px solid var(--idle); border-radius: 2px; background: var(--raised); cursor: pointer; text-align: left;
  @media (pointer: coarse) { min-height: 44px; }
  &[data-focus-visible] { outline: 2px solid var(--act); outline-offset: 1px; }
  span { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
  /* A phone has no tip to read the rest in. */
  @media (max-width: 600px) { main & span { white-space: normal; } }
`;
export const Floating = styled(Popover)`
  background: var(--raised); border: 1px solid var(--ink); border-radius: 3px; box-shadow: 0 6px 20px #0004; padding: 4px; overflow: auto;
  min-width: var(--trigger-width); max-width: min(420px, calc(100vw - 24px));
`;
const Option = styled(ListBoxItem)`
  padding: 6px 10px; border-radius: 2px; cursor: pointer; outline: none;
  @media (pointer: coarse) { padding: 12px 10px; }
  &[data-focused] { background: color-mix(in srgb, var(--act) 14%, transparent); }
  &[data-selected] { font-weight: 650; }
`;

const SectionName = styled(Header)`
  padding: 6px 10px 2px; font-size: 12px; color: var(--soft);
`;

/** Options by section, in their order; those without one stand by themselves. */
function sectionsOf<O extends { section?: string }>(
  options: readonly O[],
): { name: string | undefined; own: O[] }[] {
  const found = new Map<string | undefined, O[]>();
  for (const one of options) found.set(one.section, [...(found.get(one.section) ?? []), one]);
  return [...found].map(([name, own]) => ({ name, own }));
}

interface SelectProps<K extends string> {
  label: string;
  hideLabel?: boolean;
  value: K | null;
  /** Those of one section stand together under its name, in the order that they come in. */
  options: readonly { id: K; name: string; section?: string }[];
  onChange: (value: K) => void;
  placeholder?: string;
}

export function Select<K extends string>({
  label,
  hideLabel,
  value,
  options,
  onChange,
  placeholder,
}: SelectProps<K>) {
  return (
    <Field>
      <AriaSelect
        {...(hideLabel && { "aria-label": label })}
        selectedKey={value}
        onSelectionChange={(key) => key !== null && onChange(String(key) as K)}
        placeholder={placeholder ?? "choose"}
        validationBehavior="aria"
      >
        {!hideLabel && <FieldLabel>{label}</FieldLabel>}
        <Trigger>
          <SelectValue />
          <ChevronDown size={16} aria-hidden />
        </Trigger>
        <Floating>
          <ListBox>
            {sectionsOf(options).map(({ name: section, own }) =>
              section === undefined ? (
                own.map(({ id, name }) => (
                  <Option key={id} id={id} textValue={name}>
                    {name}
                  </Option>
                ))
              ) : (
                <ListBoxSection key={section}>
                  <SectionName>{section}</SectionName>
                  {own.map(({ id, name }) => (
                    <Option key={id} id={id} textValue={name}>
                      {name}
                    </Option>
                  ))}
                </ListBoxSection>
              ),
            )}
          </ListBox>
        </Floating>
      </AriaSelect>
    </Field>
  );
}

const SwitchBox = styled(AriaSwitch)`
  display: flex; align-items: center; gap: 8px; min-height: 32px; cursor: pointer;
  @media (pointer: coarse) { min-height: 44px; }
  .rail { width: 34px; height: 18px; border: 2px solid var(--act); border-radius: 10px; position: relative; flex: none; }
  .rail::after { content: ""; position: absolute; top: 2px; left: 2px; width: 10px; height: 10px; border-radius: 50%; background: var(--act); }
  &[data-selected] .rail { background: var(--act); }
  &[data-selected] .rail::after { left: 18px; background: var(--raised); }
  &[data-focus-visible] .rail { outline: 2px solid var(--act); outline-offset: 2px; }
`;

export function Switch({
  children,
  isOn,
  onChange,
}: {
  children: ReactNode;
  isOn: boolean;
  onChange: (on: boolean) => void;
}) {
  return (
    <SwitchBox isSelected={isOn} onChange={onChange}>
      <span className="rail" aria-hidden />
      {children}
    </SwitchBox>
  );
}

const Unit = styled.small`
  font-size: 0.82em; color: var(--soft); margin-left: 0.2em;
`;

/** A number with its unit drawn smaller. */
export function Quantity({
  dimension,
  si,
  unit,
  figures,
}: {
  dimension: Dimension;
  si: number;
  unit: string;
  figures?: number;
}) {
  const { number, unit: symbol } = showQuantity(dimension, si, unit, figures);
  return (
    <span>
      {number}
      <Unit>{symbol}</Unit>
    </span>
  );
}
