import type { ProcedureRecord } from '@even-bed/contract';
import { checkProcedure, type ProcedureFault } from '@even-bed/core/care/checkProcedure';
import type { Procedure } from '@even-bed/core';
import { useLocalSearchParams, useRouter } from 'expo-router';
import { use, useEffect, useMemo, useState } from 'react';
import { View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { errorOf } from '../api/errorOf';
import { loadSchemas } from '../api/loadSchemas';
import { saveFile } from '../fit/saveFile';
import { typedOf, withoutEmpty, withValue, type Typed } from '../fit/toolForm';
import { useAppSelector } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { Field } from '../ui/Field';
import { Failed, Loading } from '../ui/Loading';
import { Notice } from '../ui/Notice';
import { Page } from '../ui/Page';
import { Row } from '../ui/Row';
import { Section } from '../ui/Section';
import { Signal } from '../ui/Signal';
import { SPACE, useIsWide } from '../ui/theme';
import { rightNow } from '../ui/useNow';
import { Words } from '../ui/Words';
import { useProcedureQuery, useSaveProcedureMutation } from './jobApi';
import { readInKept } from './readIn';
import { StepForm } from './StepForm';
import { prose } from '../ui/prose';

/** A procedure as a document: looked at, copied, changed, shared. */
export function ProcedureScreen() {
  const { procedureId: id } = useLocalSearchParams<{ procedureId: string }>();
  const fromFile = id === 'read-in';
  const [kept, setKept] = useState<Procedure | null>(null);
  const { data, error, refetch } = useProcedureQuery({ procedure: id }, { skip: fromFile });
  useEffect(() => {
    if (fromFile) void readInKept().then(setKept);
  }, [fromFile]);
  const failure = errorOf(error);
  const record: ProcedureRecord | undefined = fromFile
    ? kept
      ? { ...kept, version: 0, basedOn: null, doc: kept, edition: null, at: null, personName: null }
      : undefined
    : data;
  if (record) return <Editor key={`${record.id} ${record.version}`} record={record} fromFile={fromFile} />;
  return (
    <Page title="A job" crumbs={[{ label: 'Jobs as the shop does them', href: '/procedures' }]}>
      {failure ? <Failed message={failure.message} onRetry={refetch} /> : <Loading what="the job" />}
    </Page>
  );
}

export type TypedProcedure = Typed<Procedure>;

function Editor({ record, fromFile }: { record: ProcedureRecord; fromFile: boolean }) {
  const { procedureSchema, validate } = use(loadSchemas());
  const router = useRouter();
  const wide = useIsWide();
  const isLead = useAppSelector((state) => state.people.person?.role === 'lead');
  // What ships is only ever copied; what was read in is the shop's own from the start.
  const [ownId, setOwnId] = useState<string | null>(() => (fromFile ? uuid() : record.version > 0 ? record.id : null));
  const [form, setForm] = useState<TypedProcedure>(() => typedOf(record.doc));
  const [at, setAt] = useState(0);
  const [save, { isLoading, error }] = useSaveProcedureMutation();
  const failure = errorOf(error);
  const read = useMemo(
    () => validate<Procedure>(procedureSchema, withoutEmpty(form)),
    [procedureSchema, validate, form],
  );
  const faults: ProcedureFault[] = useMemo(
    () =>
      read.ok
        ? checkProcedure(read.value)
        : Object.entries(read.fields).map(([path, message]) => ({ stepId: stepOfPath(form, path), message })),
    [read, form],
  );
  const edits = ownId !== null && isLead;
  const set = (path: string, value: unknown) => setForm((old) => withValue(old, path, value));
  const keep = async () => {
    if (!read.ok || ownId === null) return;
    const result = await save({
      procedure: ownId,
      key: uuid(),
      body: {
        doc: { ...read.value, id: ownId },
        basedOn: record.basedOn ?? (record.version === 0 && !fromFile ? record.id : null),
        version: fromFile || record.version === 0 ? 0 : record.version,
        at: rightNow(),
      },
    });
    if (!result.error) router.replace(`/procedures/${ownId}`);
  };
  const steps = form.steps;
  const move = (from: number, by: number) => {
    const next = [...steps];
    const [step] = next.splice(from, 1);
    next.splice(from + by, 0, step!);
    set('steps', next);
    setAt(from + by);
  };
  const add = () => {
    const id = `step-${steps.length + 1}-${Math.floor(rightNow() % 100_000)}`;
    const next = steps[at]?.next ?? 'end:done';
    set('steps', [
      ...steps.slice(0, at + 1),
      { id, title: 'A new step', doing: '', cant: [{ label: 'It can’t be done', to: 'end:stopped' }], next },
      ...steps.slice(at + 1),
    ]);
    if (steps[at]) set(`steps.${at}.next`, id);
    setAt(at + 1);
  };
  return (
    <Page
      title={form.title || 'A job'}
      crumbs={[{ label: 'Jobs as the shop does them', href: '/procedures' }]}
      state={
        <Words size="small" tone="steel">
          {record.version > 0
            ? `version ${record.version}`
            : fromFile
              ? 'read in, not saved'
              : edits
                ? 'a copy, not saved'
                : 'ships with the shop'}
        </Words>
      }
      tools={
        <>
          <ActionButton
            label="JSON"
            icon="download"
            kind="quiet"
            onPress={() =>
              saveFile(
                `${record.doc.id}.json`,
                JSON.stringify(read.ok ? read.value : record.doc, null, 2),
                'application/json',
              )
            }
            testID="share-json"
          />
          <ActionButton
            label="Paper"
            icon="print"
            kind="quiet"
            onPress={() => router.push(`/jobs/paper?procedure=${record.id}`)}
            testID="to-paper"
          />
        </>
      }
      actions={
        !isLead ? undefined : edits ? (
          <ActionButton
            label="Save as a new version"
            kind="main"
            grow
            busy={isLoading}
            disabled={faults.length > 0}
            onPress={() => void keep()}
            testID="save-procedure"
          />
        ) : (
          <ActionButton
            label="Copy and change"
            kind="main"
            grow
            onPress={() => {
              setOwnId(uuid());
              set('title', `${form.title}, our way`);
            }}
            testID="copy-procedure"
          />
        )
      }
      testID="procedure"
    >
      {failure ? (
        <Notice kind="stop" title={failure.message} testID="save-fault">
          {Object.values(failure.fields)[0] ?? ''}
        </Notice>
      ) : null}
      <Faults faults={faults} form={form} onGo={setAt} />
      <View style={wide ? { flexDirection: 'row', gap: SPACE.xl, alignItems: 'flex-start' } : { gap: SPACE.l }}>
        <View style={{ gap: SPACE.m, ...(wide ? { width: 380 } : {}) }}>
          {edits ? (
            <>
              <Field
                label="Title"
                value={form.title}
                onChange={(text) => set('title', text)}
                testID="procedure-title"
              />
              <Field
                label="What it is for"
                value={form.about}
                lines={3}
                onChange={(text) => set('about', text)}
                testID="procedure-about"
              />
            </>
          ) : (
            <Words>{form.about}</Words>
          )}
          {form.choices.map((choice, c) => (
            <Section key={choice.id} title={choice.question.toUpperCase()}>
              {choice.options.map((option, o) => (
                <View key={option.id} style={{ flexDirection: 'row', gap: 8, alignItems: 'center' }}>
                  <View style={{ flex: 1 }}>
                    <Words size="small">{`${option.label}${option.id === choice.usual ? ' (usual)' : ''}`}</Words>
                  </View>
                  {edits && option.hours !== undefined ? (
                    <View style={{ width: 110 }}>
                      <Field
                        label="Hours"
                        value={option.hours}
                        onChange={(text) => set(`choices.${c}.options.${o}.hours`, text)}
                        testID={`hours-${choice.id}-${option.id}`}
                      />
                    </View>
                  ) : null}
                  {edits && option.id !== choice.usual ? (
                    <ActionButton
                      label="Make usual"
                      kind="quiet"
                      onPress={() => set(`choices.${c}.usual`, option.id)}
                    />
                  ) : null}
                </View>
              ))}
            </Section>
          ))}
          <Section title="STEPS" testID="step-list">
            {steps.map((step, i) => (
              <Row
                key={step.id}
                selected={i === at}
                onPress={() => setAt(i)}
                lead={
                  faults.some(({ stepId }) => stepId === step.id) ? (
                    <Signal kind="stop" />
                  ) : (
                    <Words size="small" tone="steel">
                      {String(i + 1)}
                    </Words>
                  )
                }
                testID={`edit-${step.id}`}
              >
                <Words bold={i === at}>{prose(step.title)}</Words>
                <Words size="small" tone="steel">
                  {[
                    step.gate ? 'gate' : null,
                    step.onceOnly ? 'one chance' : null,
                    step.timer ? 'timer' : null,
                    step.ask ? 'asks' : null,
                  ]
                    .filter(Boolean)
                    .join(', ')}
                </Words>
              </Row>
            ))}
            {edits ? <ActionButton label="A step after this one" icon="add" onPress={add} testID="add-step" /> : null}
          </Section>
        </View>
        <View style={wide ? { flex: 1, minWidth: 0 } : {}}>
          {steps[at] ? (
            <StepForm
              key={steps[at].id}
              form={form}
              index={at}
              edits={edits}
              faults={faults.filter(({ stepId }) => stepId === steps[at]!.id).map(({ message }) => message)}
              set={set}
              onMove={(by) => move(at, by)}
              onRemove={() => {
                set(
                  'steps',
                  steps.filter((_, i) => i !== at),
                );
                setAt(Math.max(0, at - 1));
              }}
            />
          ) : null}
        </View>
      </View>
    </Page>
  );
}

/** The step that a faulty field belongs to. */
function stepOfPath(form: TypedProcedure, path: string): string | null {
  const [, index] = /^steps\.(\d+)/.exec(path) ?? [];
  return index === undefined ? null : (form.steps[Number(index)]?.id ?? null);
}

function Faults({
  faults,
  form,
  onGo,
}: {
  faults: readonly ProcedureFault[];
  form: TypedProcedure;
  onGo: (index: number) => void;
}) {
  if (faults.length === 0) return null;
  return (
    <Notice
      kind="stop"
      title={`${faults.length === 1 ? 'One thing stands' : `${faults.length} things stand`} against saving it`}
      testID="procedure-faults"
    >
      {faults.slice(0, 5).map(({ stepId, message }, i) => {
        const at = form.steps.findIndex(({ id }) => id === stepId);
        return (
          <Row key={i} {...(at >= 0 ? { onPress: () => onGo(at) } : {})}>
            <Words>{at >= 0 ? `${form.steps[at]!.title}: ${message}` : message}</Words>
          </Row>
        );
      })}
    </Notice>
  );
}
