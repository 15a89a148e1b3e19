import { Button, FormControlLabel, Switch, TextField, Typography } from '@mui/material';
import { pollLimits, SaveDevice, textLimits, type DeviceView } from '@entretien/contracts';
import { EXAMPLE_REGISTERS, isHostAddress, LONGEST_REGISTERS } from '@entretien/core/gateway';
import { useState } from 'react';
import { v7 as newId } from 'uuid';
import { sentenceOf } from '../../../data/api.js';
import { useDo, usePost } from '../../../data/queries.js';
import { FormDialog } from '../../../components/FormDialog.js';

interface DeviceDialogProps {
  readonly compressorId: string;
  /** The one that is changed; null for a new one. */
  readonly device: DeviceView | null;
  readonly onClose: () => void;
}

const MODBUS_PORT = 502;

/** Where a device is asked, how often, and where in it its figures stand. */
export function DeviceDialog({ compressorId, device, onClose }: DeviceDialogProps) {
  const [id] = useState(() => device?.id ?? newId());
  const [name, setName] = useState(device?.name ?? 'Controller');
  const [host, setHost] = useState(device?.host ?? '');
  const [port, setPort] = useState(String(device?.port ?? MODBUS_PORT));
  const [unitNumber, setUnitNumber] = useState(String(device?.unitNumber ?? 1));
  const [everySeconds, setEverySeconds] = useState(String(device?.everySeconds ?? 60));
  const [registers, setRegisters] = useState(device?.registers ?? EXAMPLE_REGISTERS);
  const [isOn, setOn] = useState(device?.isOn ?? true);
  const save = usePost<SaveDevice, DeviceView>(SaveDevice, `/compressors/${compressorId}/devices`);
  const remove = useDo();
  const problem = save.error ?? remove.error;
  const figure = (label: string, value: string, set: (text: string) => void) => (
    <TextField
      label={label}
      value={value}
      onChange={(event) => set(event.target.value)}
      slotProps={{ htmlInput: { inputMode: 'numeric', maxLength: 6 } }}
    />
  );
  return (
    <FormDialog
      title={device === null ? 'Add a device' : `Change ${device.name}`}
      submit="Save"
      wide
      canSubmit={name.trim() !== '' && isHostAddress(host.trim())}
      isSending={save.isPending || remove.isPending}
      problem={problem === null ? null : sentenceOf(problem)}
      onClose={onClose}
      onSubmit={() =>
        save.mutate(
          {
            id,
            name: name.trim(),
            host: host.trim(),
            port: Number(port),
            unitNumber: Number(unitNumber),
            everySeconds: Number(everySeconds),
            registers,
            isOn,
          },
          { onSuccess: onClose },
        )
      }
    >
      <TextField
        label="Name"
        required
        value={name}
        onChange={(event) => setName(event.target.value)}
        slotProps={{ htmlInput: { maxLength: textLimits.short } }}
      />
      <TextField
        label="Address, by numbers"
        required
        value={host}
        onChange={(event) => setHost(event.target.value)}
        placeholder="192.0.2.7"
        error={host.trim() !== '' && !isHostAddress(host.trim())}
        helperText="It must be among those that this installation may ask."
        slotProps={{ htmlInput: { maxLength: 15 } }}
      />
      {figure('Port', port, setPort)}
      {figure('Unit number', unitNumber, setUnitNumber)}
      {figure(`Asked every, s (${pollLimits.least} to ${pollLimits.most})`, everySeconds, setEverySeconds)}
      <TextField
        label="Registers"
        multiline
        minRows={6}
        maxRows={14}
        value={registers}
        onChange={(event) => setRegisters(event.target.value)}
        helperText="A table as a list of values, one line for each figure; the maker’s manual says where they stand."
        slotProps={{
          htmlInput: {
            maxLength: LONGEST_REGISTERS,
            spellCheck: false,
            style: { fontFamily: 'monospace', fontSize: 13 },
          },
        }}
      />
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        It is only ever read, never written to. The columns:{' '}
        <strong>what, table, register, type, order, factor, offset</strong>.
      </Typography>
      <FormControlLabel
        control={<Switch checked={isOn} onChange={(_event, on) => setOn(on)} />}
        label="It is asked"
        sx={{ minHeight: 44 }}
      />
      {device !== null && (
        <Button
          color="error"
          disabled={remove.isPending}
          onClick={() => remove.mutate(`/devices/${device.id}/removal`, { onSuccess: onClose })}
          sx={{ alignSelf: 'start', minHeight: 44 }}
        >
          Remove it; what it put on record stays
        </Button>
      )}
    </FormDialog>
  );
}
