import CloseIcon from '@mui/icons-material/Close';
import {
  Alert,
  Box,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  IconButton,
  useMediaQuery,
  type Theme,
} from '@mui/material';
import { useId, type FormEvent, type ReactNode } from 'react';

interface FormDialogProps {
  readonly title: ReactNode;
  readonly submit: string;
  readonly canSubmit?: boolean;
  readonly isSending?: boolean;
  readonly problem?: string | null;
  readonly onSubmit: () => void;
  readonly onClose: () => void;
  readonly children: ReactNode;
  readonly wide?: boolean;
}

const FIRST = ['input', 'textarea', 'select']
  .map((kind) => `${kind}:not([disabled], [readonly], [type=hidden], [aria-hidden=true])`)
  .concat('[role=combobox]:not([aria-disabled=true])')
  .join(', ');

/**
 * Where there is a keyboard, one begins to type at once: in the first field, or at the choice that is made already.
 * Not by touch, where a keypad would cover what is to be read first.
 */
function focusFirst(form: HTMLElement | null): void {
  if (!form || form.contains(document.activeElement) || !window.matchMedia('(pointer: fine)').matches) return;
  const fields = [...form.querySelectorAll<HTMLElement>(FIRST)];
  const [first] = fields;
  const isRadio = first instanceof HTMLInputElement && first.type === 'radio';
  const chosen = isRadio ? fields.find((field) => field instanceof HTMLInputElement && field.checked) : first;
  (chosen ?? first)?.focus();
}

/** A form that floats; on a phone it takes the whole screen, with its button under the thumb. */
export function FormDialog({
  title,
  submit,
  canSubmit = true,
  isSending = false,
  problem,
  onSubmit,
  onClose,
  children,
  wide = false,
}: FormDialogProps) {
  const titleId = useId();
  const isPhone = useMediaQuery((theme: Theme) => theme.breakpoints.down('sm'));
  const handle = (event: FormEvent) => {
    event.preventDefault();
    // A dialog stands in a portal, and yet its submit would go on to a form around the one who opened it.
    event.stopPropagation();
    if (canSubmit && !isSending) onSubmit();
  };
  return (
    <Dialog
      open
      onClose={onClose}
      fullScreen={isPhone}
      fullWidth
      maxWidth={wide ? 'md' : 'xs'}
      aria-labelledby={titleId}
    >
      <Box
        component="form"
        ref={focusFirst}
        onSubmit={handle}
        noValidate
        sx={{ display: 'flex', flexDirection: 'column', minHeight: 0, flex: 1 }}
      >
        <DialogTitle id={titleId} sx={{ pr: 7, pb: 1 }}>
          {title}
        </DialogTitle>
        <IconButton aria-label="Close" onClick={onClose} sx={{ position: 'absolute', right: 10, top: 10 }}>
          <CloseIcon />
        </IconButton>
        <DialogContent
          sx={{
            display: 'flex',
            flexDirection: 'column',
            gap: 1.25,
            pt: '8px !important',
            '& > *': { minWidth: 0 },
          }}
        >
          {children}
          {problem && (
            <Alert severity="error" variant="outlined">
              {problem}
            </Alert>
          )}
        </DialogContent>
        <DialogActions sx={{ px: 3, pb: 2 }}>
          <Button onClick={onClose} sx={{ display: { xs: 'none', sm: 'inline-flex' } }}>
            Cancel
          </Button>
          <Button
            type="submit"
            variant="contained"
            disabled={!canSubmit || isSending}
            fullWidth={isPhone}
            size={isPhone ? 'large' : 'medium'}
          >
            {submit}
          </Button>
        </DialogActions>
      </Box>
    </Dialog>
  );
}
