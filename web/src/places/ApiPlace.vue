<script setup lang="ts">
import { computed } from 'vue';

import { Unreachable } from '@/api/client';
import { useRead } from '@/api/queries';
import { vSay } from '@/said/say';

/** The API as its description tells it, for those who write a script beside it. */
interface Named {
  $ref?: string;
  type?: string | string[];
  items?: Named;
  enum?: unknown[];
  minimum?: number;
  maximum?: number;
}
interface Parameter {
  name: string;
  in: string;
  description?: string;
  schema?: Named;
}
interface Operation {
  summary?: string;
  description?: string;
  tags?: string[];
  parameters?: Parameter[];
  requestBody?: { content: Record<string, { schema: Named }> };
  responses: Record<string, { description: string; content?: Record<string, { schema?: Named }> }>;
}
interface Schema extends Named {
  description?: string;
  required?: string[];
  properties?: Record<string, Named & { description?: string }>;
}
interface Description {
  info: { title: string; description?: string; version: string };
  tags?: { name: string; description?: string }[];
  paths: Record<string, Record<string, Operation>>;
  components: { schemas: Record<string, Schema> };
}

const { data: api, away } = useRead<Description>({
  queryKey: ['description'],
  queryFn: async ({ signal }) => {
    const response = await fetch('/api/openapi.json', { signal }).catch(() => undefined);
    if (!response?.ok) throw new Unreachable();
    return (await response.json()) as Description;
  },
});

function shape(named: Named | undefined): string {
  if (!named) return '';
  if (named.$ref) return named.$ref.split('/').pop() ?? '';
  if (named.items) return `list of ${shape(named.items)}`;
  const types = [named.type ?? []].flat().filter((type) => type !== 'null');
  const range =
    named.minimum !== undefined && named.maximum !== undefined
      ? ` ${String(named.minimum)} to ${String(named.maximum)}`
      : '';
  return named.enum ? named.enum.map(String).join(' | ') : types.join(' or ') + range;
}

const groups = computed(() => {
  const paths = Object.entries(api.value?.paths ?? {});
  const all = paths.flatMap(([path, methods]) =>
    Object.entries(methods).map(([method, operation]) => ({ path, method, operation })),
  );
  return (api.value?.tags ?? []).map((tag) => ({
    ...tag,
    operations: all.filter(({ operation }) => operation.tags?.includes(tag.name)),
  }));
});
const schemas = computed(() => Object.entries(api.value?.components.schemas ?? {}));
</script>

<template>
  <div class="page">
    <h1>The API</h1>
    <p v-if="away" v-say class="soft">The description can’t be reached. Trying again.</p>
    <p v-else-if="!api" class="soft">Opening the description</p>
    <template v-else>
      <p>{{ api.info.description }}</p>
      <p><a class="alone" href="/api/openapi.json">The description as an OpenAPI document</a></p>
      <section v-for="group in groups" :key="group.name">
        <h2>{{ group.description ?? group.name }}</h2>
        <details v-for="{ path, method, operation } in group.operations" :key="method + path">
          <summary>
            <code>{{ method.toUpperCase() }} {{ path }}</code> {{ operation.summary }}
          </summary>
          <p v-if="operation.description">{{ operation.description }}</p>
          <dl>
            <template v-for="parameter in operation.parameters" :key="parameter.name">
              <dt>
                <code>{{ parameter.name }}</code> in {{ parameter.in }}
              </dt>
              <dd>{{ shape(parameter.schema) }} {{ parameter.description }}</dd>
            </template>
            <template v-for="(content, kind) in operation.requestBody?.content" :key="kind">
              <dt>Body</dt>
              <dd>
                <code>{{ shape(content.schema) }}</code> as {{ kind }}
              </dd>
            </template>
            <template v-for="(response, status) in operation.responses" :key="status">
              <dt>{{ status }}</dt>
              <dd>
                {{ response.description }}
                <code v-for="(content, kind) in response.content" :key="kind">
                  {{ shape(content.schema) }}
                </code>
              </dd>
            </template>
          </dl>
        </details>
      </section>
      <section>
        <h2>Shapes</h2>
        <details v-for="[name, schema] in schemas" :id="name" :key="name">
          <summary>
            <code>{{ name }}</code> {{ schema.description }}
          </summary>
          <p v-if="!schema.properties">{{ shape(schema) }}</p>
          <dl v-else>
            <template v-for="(field, key) in schema.properties" :key="key">
              <dt>
                <code>{{ key }}</code>
                <span v-if="schema.required?.includes(String(key))" class="soft"> needed</span>
              </dt>
              <dd>{{ shape(field) }}. {{ field.description }}</dd>
            </template>
          </dl>
        </details>
      </section>
    </template>
  </div>
</template>

<style scoped>
.page {
  max-width: 1000px;
}
h2 {
  margin: 20px 0 4px;
  font-size: var(--type-strong);
}
details {
  border-bottom: 1px solid var(--sedge);
}
summary {
  padding: 8px 0;
  cursor: pointer;
}
dl {
  display: grid;
  grid-template-columns: minmax(120px, max-content) minmax(0, 1fr);
  gap: 4px 16px;
  margin: 0 0 12px 16px;
}
dt {
  font-weight: 400;
}
dd {
  margin: 0;
  overflow-wrap: anywhere;
}
</style>
