import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState } from 'react';

/** Where a list is given its name. What was typed stays through a refusal. */
export function NameForm(props: {
  /** Its words: what the name is of, what saves it, and what leaves it. */
  label: string;
  save: string;
  cancel: string;
  name: string;
  wrong: string | null | undefined;
  busy: boolean;
  className: string;
  onSave: (name: string) => void;
  onCancel: () => void;
}) {
  const { label, save, cancel, wrong, busy, className, onSave, onCancel } = props;
  const [name, setName] = useState(props.name);
  return (
    <form
      noValidate
      className={className}
      onSubmit={(event) => {
        event.preventDefault();
        onSave(name);
      }}
    >
      <TextField
        autoFocus
        fullWidth
        label={label}
        value={name}
        error={!!wrong}
        helperText={wrong}
        onChange={(event) => setName(event.target.value)}
      />
      <div className="row">
        <Button type="submit" variant="contained" loading={busy}>
          {save}
        </Button>
        <Button variant="text" onClick={onCancel}>
          {cancel}
        </Button>
      </div>
    </form>
  );
}
