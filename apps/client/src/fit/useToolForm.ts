import type { ToolId, ToolInputs } from '@even-bed/core';
import { useLocalSearchParams } from 'expo-router';
import { use, useEffect, useMemo, useRef, useState } from 'react';
import { loadSchemas } from '../api/loadSchemas';
import { deviceStore } from '../offline/deviceStore';
import { usePlanQuery } from './fitApi';
import { EXAMPLES } from './toolExamples';
import { typedOf, valueAt, withoutEmpty, withoutNumbers, withValue, type Typed } from './toolForm';

export interface ToolForm<T extends ToolId> {
  tool: T;
  form: Typed<ToolInputs[T]>;
  /** What is asked, once every field can be read. */
  input: ToolInputs[T] | null;
  /** Every fault by the path of its field, also of fields not yet typed into. */
  faults: Record<string, string>;
  /** For a field: its text, what changes it, and its fault if something stands in it. */
  field: (path: string) => { value: string; onChange: (text: string) => void; error?: string };
  set: (path: string, value: unknown) => void;
  fill: (part: Partial<Typed<ToolInputs[T]>>) => void;
  /** How many rows a list has; none where the form is older than the list. */
  count: (path: string) => number;
  addTo: (path: string, row: object) => void;
  removeFrom: (path: string, index: number) => void;
  startAnew: () => void;
  /** What stands there is the tool's own example, untouched: nobody measured it. */
  isExample: boolean;
  /** Takes every number of the example away; what is chosen and named stays. */
  clear: () => void;
  /** False until what this device remembers of the tool is there. */
  ready: boolean;
}

/** The form of one tool. It remembers what is typed, and opens a kept plan named in the address. */
export function useToolForm<T extends ToolId>(tool: T): ToolForm<T> {
  const { plan: planId, ...params } = useLocalSearchParams<Record<string, string>>();
  const { TOOL_SCHEMAS, validate } = use(loadSchemas());
  const [form, setForm] = useState<Typed<ToolInputs[T]>>(exampleOf(tool));
  const [ready, setReady] = useState(false);
  const { data: plan } = usePlanQuery({ id: planId ?? '' }, { skip: !planId });
  const asked = JSON.stringify(params);
  /** The plan, or none, whose form was typed into: what is read late never goes over it. */
  const typedInto = useRef<string | null>(null);
  const own = planId ?? '';

  useEffect(() => {
    let current = true;
    const begin = async (): Promise<Typed<ToolInputs[T]> | null> => {
      if (planId) return plan?.tool === tool ? (typedOf(plan.input) as Typed<ToolInputs[T]>) : null;
      const kept = await deviceStore.get<Typed<ToolInputs[T]>>('tool', keptAs(tool));
      // What the address says of single fields stands over what was typed last.
      return Object.entries(JSON.parse(asked) as Record<string, string>)
        .filter(([path]) => FROM_ADDRESS[tool]?.includes(path))
        .reduce((all, [path, value]) => withValue(all, path, value), kept ?? exampleOf(tool));
    };
    void begin().then((first) => {
      if (!current || first === null) return;
      if (typedInto.current !== own) setForm(first);
      setReady(true);
    });
    return () => {
      current = false;
    };
  }, [tool, planId, plan, asked, own]);
  useEffect(() => {
    if (ready && !planId) void deviceStore.set('tool', keptAs(tool), form);
  }, [ready, planId, tool, form]);

  const read = useMemo(
    () => validate<ToolInputs[T]>(TOOL_SCHEMAS[tool], withoutEmpty(form)),
    [TOOL_SCHEMAS, validate, tool, form],
  );
  const faults = read.ok ? {} : read.fields;
  const change = (next: (old: Typed<ToolInputs[T]>) => Typed<ToolInputs[T]>) => {
    typedInto.current = own;
    setForm(next);
  };
  const set = (path: string, value: unknown) => change((old) => withValue(old, path, value));
  const rows = (path: string) => (valueAt(form, path) as object[] | undefined) ?? [];
  return {
    tool,
    form,
    input: read.ok ? read.value : null,
    faults,
    field: (path) => {
      const value = valueAt(form, path);
      const text = typeof value === 'string' ? value : '';
      const fault = text.trim() === '' ? undefined : faults[path];
      return { value: text, onChange: (next) => set(path, next), ...(fault ? { error: fault } : {}) };
    },
    set,
    fill: (part) => change((old) => ({ ...(old as object), ...part }) as Typed<ToolInputs[T]>),
    count: (path) => rows(path).length,
    addTo: (path, row) => set(path, [...rows(path), row]),
    removeFrom: (path, index) =>
      set(
        path,
        rows(path).filter((_, i) => i !== index),
      ),
    startAnew: () => change(() => exampleOf(tool)),
    isExample: !planId && JSON.stringify(form) === JSON.stringify(exampleOf(tool)),
    clear: () => change(withoutNumbers),
    ready,
  };
}

/** Where a device keeps what was typed; another name when what a tool asks has changed. */
const keptAs = (tool: ToolId) => (tool === 'stack' ? 'stack/2' : tool);

const exampleOf = <T extends ToolId>(tool: T) => EXAMPLES[tool] as unknown as Typed<ToolInputs[T]>;

/** Fields that a link from another page may fill. */
const FROM_ADDRESS: Partial<Record<ToolId, readonly string[]>> = {
  spacer: ['thickness', 'layer'],
  together: ['face', 'limit', 'printed'],
};
