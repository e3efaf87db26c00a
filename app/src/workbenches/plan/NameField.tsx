interface NameFieldProps {
  label: string;
  value: string;
  width?: number;
  most?: number;
  mayBeEmpty?: boolean;
  onChange: (name: string) => void;
}

/** A name that is typed where it stands: Enter, or leaving it, keeps it. */
export function NameField({
  label,
  value,
  width = 150,
  most = 60,
  mayBeEmpty = false,
  onChange,
}: NameFieldProps) {
  return (
    <input
      className="plain-input"
      aria-label={label}
      key={value}
      defaultValue={value}
      maxLength={most}
      style={{ width }}
      onBlur={(e) => {
        const name = e.target.value.trim();
        if (name !== value && (name || mayBeEmpty)) onChange(name);
        else e.target.value = value;
      }}
      onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
    />
  );
}
