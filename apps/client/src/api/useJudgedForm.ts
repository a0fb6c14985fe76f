import type { validate } from '@even-bed/contract/kit/validate';
import { useEffect } from 'react';
import {
  useForm,
  useWatch,
  type DefaultValues,
  type FieldValues,
  type Path,
  type PathValue,
  type Resolver,
} from 'react-hook-form';
import type { ReadableError } from './errorOf';
import { loadSchemas } from './loadSchemas';

type Schemas = Awaited<ReturnType<typeof loadSchemas>>;
type Schema = Parameters<typeof validate>[0];

interface Parts<Form> {
  initial: Form;
  /** The contract's own schema judges the form, so that client and server never disagree. */
  schema: (schemas: Schemas) => Schema;
  /** What is sent, of what is typed. */
  bodyOf: (form: Form) => object;
  /** Where a fault of the contract's fields shows; left out: the field of the same name. */
  fieldOf?: Readonly<Record<string, Path<Form & FieldValues>>>;
  /** What the server said last. */
  failure: ReadableError | null;
}

/** A form that is judged by the schema of what it sends: before it is sent, and by the server after. */
export function useJudgedForm<Form extends FieldValues>({ initial, schema, bodyOf, fieldOf, failure }: Parts<Form>) {
  const place = (path: string) => (fieldOf?.[path] ?? path) as Path<Form>;
  const resolver: Resolver<Form> = async (form) => {
    const schemas = await loadSchemas();
    const judged = schemas.validate(schema(schemas), bodyOf(form));
    if (judged.ok) return { values: form, errors: {} };
    const errors = Object.entries(judged.fields).map(([path, message]) => [place(path), { type: 'joi', message }]);
    return { values: {}, errors: Object.fromEntries(errors) as never };
  };
  const { control, handleSubmit, setValue, setError, formState } = useForm<Form>({
    defaultValues: initial as DefaultValues<Form>,
    resolver,
  });
  const form = useWatch({ control }) as Form;
  useEffect(() => {
    for (const [path, message] of Object.entries(failure?.fields ?? {}))
      setError(place(path), { type: 'server', message });
    // The places of fields don't change.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [failure, setError]);
  const errorAt = (name: Path<Form>) => (formState.errors[name] as { message?: string } | undefined)?.message;
  const set = <Name extends Path<Form>>(name: Name, value: PathValue<Form, Name>) =>
    setValue(name, value, { shouldDirty: true, shouldValidate: formState.isSubmitted });
  return {
    form,
    set,
    errorAt,
    /** For a field of text. */
    text: (name: Path<Form>) => {
      const error = errorAt(name);
      return {
        value: String(form[name] ?? ''),
        onChange: (typed: string) => set(name, typed as PathValue<Form, typeof name>),
        ...(error === undefined ? {} : { error }),
      };
    },
    submit: (send: (body: object) => Promise<void>) => void handleSubmit((typed) => send(bodyOf(typed)))(),
  };
}
