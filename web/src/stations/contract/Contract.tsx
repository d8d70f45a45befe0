/** The API's contract as a page to read: what can be asked, and what comes back. */
import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { api } from '../../api/place';
import { Trouble } from '../../ui/Notice';

interface Schema {
  $ref?: string;
  type?: string;
  format?: string;
  description?: string;
  enum?: (string | number)[];
  items?: Schema;
  allOf?: Schema[];
  properties?: Record<string, Schema>;
  required?: string[];
  minimum?: number;
  maximum?: number;
  minLength?: number;
  maxLength?: number;
}
interface Parameter {
  $ref?: string;
  name?: string;
  in?: string;
  required?: boolean;
  description?: string;
  schema?: Schema;
}
interface Body {
  $ref?: string;
  description?: string;
  headers?: Record<string, { description?: string }>;
  content?: Record<string, { schema?: Schema }>;
}
interface Operation {
  operationId?: string;
  tags?: string[];
  summary?: string;
  description?: string;
  parameters?: Parameter[];
  requestBody?: Body;
  responses?: Record<string, Body>;
}
interface Components {
  schemas: Record<string, Schema>;
  parameters?: Record<string, Parameter>;
  responses?: Record<string, Body>;
}
interface Spec {
  info: { title: string; version: string; description?: string };
  tags?: { name: string; description?: string }[];
  paths: Record<string, Record<string, Operation>>;
  components: Components;
}

const useSpec = () =>
  useQuery({
    queryKey: ['contract'],
    staleTime: Infinity,
    queryFn: async () => {
      const r = await fetch(`${api}/openapi.json`);
      if (!r.ok) throw new Error(t`Can't load the contract.`);
      return (await r.json()) as Spec;
    },
  });

const nameOf = (ref: string) => ref.slice(ref.lastIndexOf('/') + 1);

export function Contract() {
  const spec = useSpec();
  if (spec.error) {
    return <Trouble sx={{ m: 2 }}>{spec.error.message}</Trouble>;
  }
  if (!spec.data) return <Box component="main" sx={{ p: 3 }} />;
  const { info, tags = [], paths, components } = spec.data;
  const operations = Object.entries(paths).flatMap(([path, methods]) =>
    Object.entries(methods).map(([method, op]) => ({ path, method, op })),
  );
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 2, maxWidth: 1000 }}>
      <Typography variant="h1">{t`${info.title} contract, version ${info.version}`}</Typography>
      {info.description?.split('\n\n').map((part) => (
        <Typography key={part} sx={{ my: 1 }}>
          {part}
        </Typography>
      ))}
      <Typography>
        <Trans>
          All addresses begin with <code>/api/v1</code>. For machines:{' '}
          <a href={`${api}/openapi.json`}>openapi.json</a>
        </Trans>
      </Typography>
      {tags.map((tag) => (
        <Box component="section" key={tag.name} sx={{ mt: 4 }}>
          <Typography variant="h2">{tag.name}</Typography>
          <Typography sx={{ color: 'text.secondary' }}>{tag.description}</Typography>
          {operations
            .filter((o) => o.op.tags?.includes(tag.name))
            .map(({ path, method, op }) => (
              <OperationText
                key={method + path}
                path={path}
                method={method}
                op={op}
                components={components}
              />
            ))}
        </Box>
      ))}
      <Box component="section" sx={{ mt: 4 }}>
        <Typography variant="h2">{t`Schemas`}</Typography>
        {Object.entries(components.schemas).map(([name, schema]) => (
          <SchemaText key={name} name={name} schema={schema} />
        ))}
      </Box>
    </Box>
  );
}

function OperationText({
  path,
  method,
  op,
  components,
}: {
  path: string;
  method: string;
  op: Operation;
  components: Components;
}) {
  const asked = (op.parameters ?? []).map((p) => (p.$ref && components.parameters?.[nameOf(p.$ref)]) || p);
  const answers = Object.entries(op.responses ?? {}).map(
    ([status, r]) => [status, (r.$ref && components.responses?.[nameOf(r.$ref)]) || r] as const,
  );
  return (
    <Box sx={{ borderTop: '1px solid', borderColor: 'divider', mt: 1.5, pt: 1 }}>
      <Typography variant="h3" sx={{ fontFamily: 'monospace', overflowWrap: 'anywhere' }}>
        {method.toUpperCase()} {path}
      </Typography>
      <Typography>
        <b>{op.summary}.</b> <span>{op.description}</span>
      </Typography>
      {asked.length > 0 && (
        <Box component="ul" sx={{ my: 0.5, pl: 3 }}>
          {asked.map((p) => (
            <li key={p.name}>
              <code>{p.name}</code> ({[p.in, p.required && t`required`].filter(Boolean).join(', ')}):{' '}
              <TypeText schema={p.schema ?? {}} /> {p.description}
            </li>
          ))}
        </Box>
      )}
      {op.requestBody && (
        <Typography>
          {t`Body:`} <ContentText content={op.requestBody.content ?? {}} />
        </Typography>
      )}
      {answers.map(([status, r]) => (
        <Typography key={status}>
          {status === 'default' ? t`Errors` : status}: {r.description}{' '}
          <ContentText content={r.content ?? {}} />
          {Object.entries(r.headers ?? {}).map(([name, h]) => (
            <span key={name}>
              {' '}
              <code>{name}</code>: {h.description}
            </span>
          ))}
        </Typography>
      ))}
    </Box>
  );
}

/** What is sent, in each of its formats. */
function ContentText({ content }: { content: Record<string, { schema?: Schema }> }) {
  return Object.entries(content).map(([format, { schema }], i) => (
    <span key={format}>
      {i > 0 && ' | '}
      {schema && <TypeText schema={schema} />}
      {format.includes('json') ? '' : ` (${format})`}
    </span>
  ));
}

function SchemaText({ name, schema }: { name: string; schema: Schema }) {
  return (
    <Box id={name} sx={{ borderTop: '1px solid', borderColor: 'divider', mt: 1.5, pt: 1 }}>
      <Typography variant="h3">{name}</Typography>
      {schema.description && <Typography>{schema.description}</Typography>}
      {schema.properties ? (
        <Box component="ul" sx={{ my: 0.5, pl: 3 }}>
          {Object.entries(schema.properties).map(([field, s]) => (
            <li key={field}>
              <code>{field}</code>
              {schema.required?.includes(field) ? '' : ` (${t`optional`})`}: <TypeText schema={s} />{' '}
              {s.description}
            </li>
          ))}
        </Box>
      ) : (
        <Typography>
          <TypeText schema={schema} />
        </Typography>
      )}
    </Box>
  );
}

/** A shape without a name of its own, by its fields. */
function ShapeText({ schema }: { schema: Schema }) {
  return Object.entries(schema.properties ?? {}).map(([field, s], i) => (
    <span key={field}>
      {i > 0 && ', '}
      <code>{field}</code>: <TypeText schema={s} />
    </span>
  ));
}

/** A schema in a few words, with a link where it has a name. */
function TypeText({ schema: s }: { schema: Schema }) {
  if (s.$ref)
    return (
      // Room for a finger beside a short name, taken from the words around it.
      <a href={`#${nameOf(s.$ref)}`} style={{ paddingInline: 12, marginInline: -12 }}>
        {nameOf(s.$ref)}
      </a>
    );
  if (s.allOf?.[0]) return <TypeText schema={s.allOf[0]} />;
  if (s.type === 'array' && s.items)
    return (
      <>
        <TypeText schema={s.items} />
        []
      </>
    );
  if (s.properties) return <ShapeText schema={s} />;
  if (s.enum) return <>{s.enum.map(String).join(' | ')}</>;
  const limits = [
    s.minimum !== undefined && t`from ${s.minimum}`,
    s.maximum !== undefined && t`to ${s.maximum}`,
    s.minLength !== undefined && t`at least ${s.minLength} characters`,
    s.maxLength !== undefined && t`at most ${s.maxLength} characters`,
  ].filter(Boolean);
  return (
    <>
      {s.format ?? s.type}
      {limits.length > 0 && ` ${limits.join(' ')}`}
    </>
  );
}
